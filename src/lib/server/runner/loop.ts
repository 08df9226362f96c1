/** The lab process: takes one job at a time from the queue and does it, for as long as it holds the lab's lock. */
import { randomUUID } from 'node:crypto';
import { dirname } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { findChromium } from '../../../lab/browser/find';
import { profileLabel, sweepProfiles } from '../../../lab/browser/profiles';
import type { Lab } from '../../../lab/lab';
import { isBusy, nowIso, type Db } from '../base/db/connection';
import { changeMeter } from '../base/db/changes';
import type { PanelSettings } from '../rooms/field/panel';
import type { HostLookSettings } from '../base/hostLook';
import type { Outward } from '../base/outward';
import { forgetLabs } from '../rooms/labs/labs';
import { queueOutdated } from './catchUp';
import { isFull } from './diskSpace';
import type { Log } from '../base/log';
import { LeaseLost, type Workplace } from './handler';
import { handlerOf } from './handlers';
import { QuietWatch } from './quietWatch';
import { finishJob, giveBack, leaseJob, reclaimLeases, renewLease, type Job } from '../base/queue/jobs';
import { takeLabLock, type LabLock } from './lock';
import { NO_WATCHDOG, type Watchdog } from './watchdog';
import { saveQuietMinute, beat, deleteLab, saveLab } from '../rooms/labs/view';

export interface RunnerOptions {
	db: Db;
	lab: Lab;
	log: Log;
	/** How sites are asked for their lists of pages; without it no host is mapped. */
	outward?: Outward;
	/** The service that knows what real visitors had; without it none is asked. */
	panel?: PanelSettings;
	/** Whom it asks of a host; without it the machine's own resolvers. */
	hostLook?: HostLookSettings;
	/** Processes beside this one that are Zafra's. */
	helpers?: readonly number[];
	/** Ends this process when its loop or a job hangs; without it nobody does. */
	watchdog?: Watchdog;
	/** Longest rest after a full disk, ms. */
	fullDiskPauseMs?: number;
	/** How it rests between two looks; by the clock of the system without. */
	pause?: (ms: number) => Promise<unknown>;
}

const LOOK_EVERY_MS = 250;
/** Also when nothing has changed: a job may have had to wait for its time. */
const LOOK_ANYWAY_MS = 5000;
const BEAT_EVERY_MS = 2000;
/** While nothing is under way the others hear of the lab only so often: each beat is a write that all of them see. */
const IDLE_BEAT_MS = 6000;
/** A beat that is this late shows that the process itself stood still: the load under way is no measure of anything. */
const FROZEN_AFTER_MS = 5000;
/** An idle lab gives its browser's memory back. */
const CLOSE_BROWSER_AFTER_MS = 60_000;
const AFTER_TROUBLE_MS = 1000;
const MOST_REST_MS = 300_000;
/** A job that took the lab down, or failed, this often is given up. */
const MOST_TRIES = 5;
/** A job that met a full disk is not tried again sooner. */
const FULL_DISK_PAUSE_MS = 15_000;

export interface Runner {
	/** Resolves when the runner has stopped. */
	finished: Promise<void>;
	stop(): void;
	/** Before an end that cannot wait: remove what the browser left, at once. Only what this lab is in charge of. */
	sweep(): void;
}

export function startRunner(options: RunnerOptions): Runner {
	const loop = new WorkLoop(options);
	return { finished: loop.run(), stop: () => loop.stop(), sweep: () => loop.sweep() };
}

class WorkLoop {
	#labId = randomUUID();
	#stopping = false;
	#lock: LabLock | null = null;
	#job: Job | null = null;
	/** The lease of the job under way is another's. */
	#lost = false;
	#frozen = false;
	/** By a clock that nobody sets. */
	#lastBeat = performance.now();
	#lastWritten = -Infinity;
	readonly #pause: (ms: number) => Promise<unknown>;
	#problem: string | null = null;
	#quiet: QuietWatch;
	#watchdog: Watchdog;

	constructor(private readonly options: RunnerOptions) {
		this.#quiet = new QuietWatch([process.pid, ...(options.helpers ?? [])]);
		this.#watchdog = options.watchdog ?? NO_WATCHDOG;
		this.#pause = options.pause ?? wait;
	}

	stop(): void {
		this.#stopping = true;
	}

	sweep(): void {
		if (this.#lock) sweepProfiles(profileLabel(dirname(this.options.db.name)));
	}

	async run(): Promise<void> {
		const heart = setInterval(() => this.#beat(), BEAT_EVERY_MS);
		try {
			await this.#takeCharge();
			await this.#work();
		} catch (error) {
			this.options.log.error({ error: (error as Error).message }, 'the runner stopped');
		} finally {
			clearInterval(heart);
			await this.options.lab.close();
			this.#leave();
		}
	}

	/** Guarded: a database that is locked for a while ends no lab. */
	#beat(): void {
		const { db, lab, log } = this.options;
		this.#watchdog.beat();
		this.#noteGap();
		if (!this.#lock) return;
		try {
			if (this.#job || performance.now() - this.#lastWritten >= IDLE_BEAT_MS) {
				beat(db, this.#labId);
				this.#lastWritten = performance.now();
			}
			this.#watchQuiet();
			if (!this.#job || this.#lost || renewLease(db, this.#job.id, this.#labId)) return;
			this.#lost = true;
			void lab.abandon();
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'a heartbeat was missed');
		}
	}

	#watchQuiet(): void {
		if (this.#job) return this.#quiet.stop();
		const share = this.#quiet.look();
		if (share !== undefined) saveQuietMinute(this.options.db, nowIso(), share);
	}

	#noteGap(): void {
		const now = performance.now();
		if (now - this.#lastBeat > FROZEN_AFTER_MS) this.#frozen = true;
		this.#lastBeat = now;
	}

	/** Only one lab of a machine measures on a data folder: wait until the one before is gone, then take over. */
	async #takeCharge(): Promise<void> {
		const { db, log } = this.options;
		const folder = dirname(db.name);
		while (!this.#stopping && !(this.#lock = takeLabLock(folder))) await this.#pause(LOOK_EVERY_MS);
		if (!this.#lock) return;
		const left = sweepProfiles(profileLabel(folder));
		const gone = await this.#persist(() => this.#takeOver());
		if (gone || left) log.info({ gone, left }, 'taking over what an ended lab left');
		this.#idle();
	}

	/** Leases of this machine's labs that are gone, and those that have ended; a lab elsewhere keeps its own. */
	#takeOver(): number {
		const { db } = this.options;
		const gone = forgetLabs(db, this.#labId);
		for (const id of gone) giveBack(db, id);
		queueOutdated(db);
		return gone.length + reclaimLeases(db, nowIso());
	}

	async #work(): Promise<void> {
		const { db, lab, log } = this.options;
		const hasChanged = changeMeter(db, LOOK_ANYWAY_MS);
		let idleSince = performance.now();
		let open = false;
		while (!this.#stopping) {
			try {
				if (hasChanged() && (await this.#next())) {
					open = true;
					idleSince = performance.now();
					continue;
				}
			} catch (error) {
				log.error({ error: (error as Error).message }, 'the lab met trouble and goes on');
				await this.#pause(AFTER_TROUBLE_MS);
				continue;
			}
			if (open && performance.now() - idleSince > CLOSE_BROWSER_AFTER_MS) {
				await lab.close();
				open = false;
			}
			await this.#pause(LOOK_EVERY_MS);
		}
	}

	/** @returns whether there was a job */
	async #next(): Promise<boolean> {
		const job = leaseJob(this.options.db, this.#labId);
		if (!job) return false;
		this.#job = job;
		this.#lost = false;
		this.#frozen = false;
		try {
			await this.#do(job);
			this.#problem = null;
		} catch (error) {
			await this.#handleTrouble(job, error);
		} finally {
			this.#job = null;
			this.#watchdog.expect(null);
		}
		this.#idle();
		return true;
	}

	async #do(job: Job): Promise<void> {
		const handler = handlerOf(job.kind);
		this.#watchdog.expect(handler.longestMs);
		if (job.attempts <= MOST_TRIES) return handler.run(job, this.#workplace());
		const { db, log } = this.options;
		log.error({ job: job.id, kind: job.kind, subject: job.subject, tries: MOST_TRIES }, 'a job is given up');
		await this.#persist(() =>
			db
				.transaction(() => {
					if (!finishJob(db, job, this.#labId)) throw new LeaseLost();
					handler.giveUp(job, this.#workplace());
				})
				.immediate()
		);
	}

	#workplace(): Workplace {
		const { db, lab, log, outward = { hostMap: [], trustedKeys: [] }, panel = { url: '', key: '' } } = this.options;
		const { hostLook = { resolvers: [], rdap: '' } } = this.options;
		return {
			db,
			lab,
			log,
			outward,
			hostLook,
			panel,
			labId: this.#labId,
			note: (job, withinMs) => {
				this.#watchdog.expect(withinMs);
				this.#note(job.id, withinMs);
			},
			persist: (write) => this.#persist(write),
			interrupted: () => this.#interrupted()
		};
	}

	#interrupted(): 'lost' | 'frozen' | 'stopping' | null {
		this.#noteGap();
		if (this.#lost) return 'lost';
		if (this.#frozen) return 'frozen';
		return this.#stopping ? 'stopping' : null;
	}

	/** A job that cannot be stored or done goes back to the queue, and the lab goes on. */
	async #handleTrouble(job: Job, error: unknown): Promise<void> {
		const { db, log } = this.options;
		if (error instanceof LeaseLost) return;
		if (!isFull(error)) {
			await this.#persist(() => giveBack(db, this.#labId, { notBefore: laterBy(restAfter(job.attempts)) }));
			throw error;
		}
		log.error({ job: job.id, subject: job.subject }, 'the disk is full');
		this.#problem = 'The disk is full: make room in the data folder. What was measured is kept.';
		const { fullDiskPauseMs = FULL_DISK_PAUSE_MS } = this.options;
		await this.#persist(() => this.#haltForSpace(job, fullDiskPauseMs)).catch(() => undefined);
		await this.#pause(fullDiskPauseMs);
	}

	/** A few bytes into pages that exist; where even that fails, the lease runs out and another try follows. */
	#haltForSpace(job: Job, pauseMs: number): void {
		const { db } = this.options;
		db.transaction(() => {
			giveBack(db, this.#labId, { countAttempt: false, notBefore: laterBy(pauseMs) });
			handlerOf(job.kind).diskFull?.(job, this.#workplace());
		}).immediate();
	}

	/** Write, and try again while another process holds the database: a measured load is not thrown away for that. */
	async #persist<Result>(write: () => Result): Promise<Result> {
		for (;;)
			try {
				return write();
			} catch (error) {
				if (!isBusy(error) || this.#stopping) throw error;
				await this.#pause(LOOK_EVERY_MS);
			}
	}

	/** The lab's row is for others to read: that it cannot be written now ends nothing. */
	#idle(): void {
		try {
			this.#note(null, null);
		} catch (error) {
			this.options.log.warn({ error: (error as Error).message }, 'the state of the lab could not be written');
		}
	}

	#note(jobId: number | null, withinMs: number | null): void {
		const { db, lab } = this.options;
		const browser = findChromium();
		const missing = browser ? null : 'Chromium was not found. Install it with: apt-get install chromium';
		saveLab(db, {
			id: this.#labId,
			pid: process.pid,
			state: withinMs === null ? 'idle' : 'busy',
			jobId,
			browser,
			problem: missing ?? this.#problem,
			loadUntil: withinMs === null ? null : laterBy(withinMs),
			sandboxed: lab.sandboxed
		});
	}

	#leave(): void {
		const { db, log } = this.options;
		if (!this.#lock) return;
		try {
			giveBack(db, this.#labId, { countAttempt: false });
			deleteLab(db, this.#labId);
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'the next lab will take over what is left');
		}
		this.#lock.release();
		this.#lock = null;
	}
}

/** What fails again and again is tried less and less often, so that it holds nothing else up. */
function restAfter(attempts: number): number {
	return Math.min(MOST_REST_MS, AFTER_TROUBLE_MS * 2 ** attempts);
}

function laterBy(ms: number): string {
	return new Date(Date.now() + ms).toISOString();
}
