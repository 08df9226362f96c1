/** The lab process: takes one task at a time from the queue, loads the page, writes the load. */
import { randomUUID } from 'node:crypto';
import { dirname } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { longestLoadMs } from '$core/load/limits';
import type { MeasuredLoad } from '$core/load/record';
import { failedRecord } from '../../../lab/assemble';
import { findChromium } from '../../../lab/browser/find';
import { profileLabel, sweepProfiles } from '../../../lab/browser/profiles';
import { failure } from '../../../lab/failure';
import type { Lab } from '../../../lab/lab';
import { isBusy, type Db } from '../db/connection';
import { finishJob, releaseLeases } from '../db/jobs';
import { keepSettling } from '../db/evidence';
import { beat, clearLabState, writeLabState } from '../db/labState';
import { releaseSingles } from '../db/singles';
import { findTrial } from '../db/trials';
import { judgementOf, trialWithoutJudgement } from '../queue/answer';
import { trialWithoutEvidence, workOutEvidence } from '../queue/evidence';
import { settleTrial } from '../queue/trials';
import { changeMeter } from '../db/changes';
import { takeLabLock, type LabLock } from './lock';
import { isFull } from './space';
import { leaseSingleTask, LeaseLost, leaseTrialTask, type LoadTask, type SettleTask } from './task';

type Log = Record<'info' | 'warn' | 'error', (data: object, words: string) => void>;

export interface RunnerOptions {
	db: Db;
	lab: Lab;
	log: Log;
}

const LOOK_EVERY_MS = 250;
/** Also when nothing has changed: a load may have had to wait for its time. */
const LOOK_ANYWAY_MS = 2000;
const BEAT_EVERY_MS = 2000;
/** A beat that is this late shows that the process itself stood still: the load under way is no measure of anything. */
const FROZEN_AFTER_MS = 5000;
/** An idle lab gives its browser's memory back. */
const CLOSE_BROWSER_AFTER_MS = 60_000;
/** A load that took the lab down this often is given up. */
const MOST_ATTEMPTS = 5;
/** A load whose browser was ended from outside is tried this often. */
const MOST_KILLS = 3;
/** Ctrl-C may end the site under test a moment before it reaches the lab: its failure is none of the page. */
const END_IN_SIGHT_MS = 300;
const AFTER_TROUBLE_MS = 1000;
const FULL_DISK_PAUSE_MS = 15_000;

export interface Runner {
	/** Resolves when the runner has stopped. */
	finished: Promise<void>;
	stop(): void;
}

export function startRunner(options: RunnerOptions): Runner {
	const runner = new LabRunner(options);
	return { finished: runner.run(), stop: () => runner.stop() };
}

class LabRunner {
	#owner = randomUUID();
	#stopping = false;
	#lock: LabLock | null = null;
	#task: LoadTask | null = null;
	/** The lease of the load under way is another's. */
	#lost = false;
	#frozen = false;
	#lastBeat = Date.now();
	#kills = new Map<string, number>();
	/** Trials whose evidence failed once: tried again by the next runner. */
	#hopeless = new Set<number>();
	#problem: string | null = null;

	constructor(private readonly options: RunnerOptions) {}

	stop(): void {
		this.#stopping = true;
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
		this.#noteGap();
		if (!this.#lock) return;
		try {
			beat(db, this.#owner);
			if (!this.#task || this.#lost || this.#task.renew()) return;
			this.#lost = true;
			void lab.abandon();
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'a heartbeat was missed');
		}
	}

	#noteGap(): void {
		const now = Date.now();
		if (now - this.#lastBeat > FROZEN_AFTER_MS) this.#frozen = true;
		this.#lastBeat = now;
	}

	/** Only one lab measures on a data folder: wait until the one before is gone, then take over what it left. */
	async #takeCharge(): Promise<void> {
		const { db, log } = this.options;
		const folder = dirname(db.name);
		while (!this.#stopping && !(this.#lock = takeLabLock(folder))) await pause(LOOK_EVERY_MS);
		if (!this.#lock) return;
		const left = sweepProfiles(profileLabel(folder));
		const released = await this.#persist(() => releaseLeases(db, this.#owner));
		await this.#persist(() => releaseSingles(db, this.#owner));
		if (released || left) log.info({ released, left }, 'taking over what an ended lab left');
		await this.#persist(() => this.#note(null));
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
				await pause(AFTER_TROUBLE_MS);
				continue;
			}
			if (open && performance.now() - idleSince > CLOSE_BROWSER_AFTER_MS) {
				await lab.close();
				open = false;
			}
			await pause(LOOK_EVERY_MS);
		}
	}

	/** One thing that waits to be done: loads first, then what is worked out from them, never beside a load. */
	async #next(): Promise<boolean> {
		const { db } = this.options;
		const task = leaseSingleTask(db, this.#owner) ?? leaseTrialTask(db, this.#owner);
		if (!task) return this.#catchUpJudgement() || this.#catchUpEvidence();
		if ('job' in task) await this.#settle(task);
		else await this.#load(task);
		return true;
	}

	#catchUpJudgement(): boolean {
		const { db } = this.options;
		const id = trialWithoutJudgement(db);
		const trial = id === null ? null : findTrial(db, id);
		if (trial) judgementOf(db, trial);
		return trial !== null;
	}

	async #catchUpEvidence(): Promise<boolean> {
		const { db, log } = this.options;
		const id = trialWithoutEvidence(db, this.#hopeless);
		if (id === null) return false;
		try {
			await workOutEvidence(db, id);
		} catch (error) {
			this.#hopeless.add(id);
			log.error({ trial: id, error: (error as Error).message }, 'the evidence could not be worked out');
		}
		return true;
	}

	async #settle({ job, trial, url, conditions }: SettleTask): Promise<void> {
		const { db, lab } = this.options;
		const within = trial.design.settleWithinMs ?? 0;
		this.#note(job.id, within + longestLoadMs(conditions));
		const result = await lab.waitUntilStable(url, conditions, within);
		await this.#persist(() =>
			db
				.transaction(() => {
					if (!finishJob(db, job.id, this.#owner)) return;
					keepSettling(db, job, result);
					settleTrial(db, trial.id);
				})
				.immediate()
		);
		await this.#persist(() => this.#note(null));
	}

	async #load(task: LoadTask): Promise<void> {
		if (!task.renew()) return;
		this.#task = task;
		this.#lost = false;
		this.#frozen = false;
		this.#note(task.jobId, longestLoadMs(task.conditions, task.steps));
		const measured = await this.#measure(task);
		this.#noteGap();
		const { record } = measured;
		if (record.status === 'failed') await pause(END_IN_SIGHT_MS);
		const back = this.#whyGivenBack(task, measured);
		this.options.log.info(
			{ ...task.about, status: record.status, labMs: record.labMs, back },
			record.failure?.message ?? 'load measured'
		);
		this.#task = null;
		if (back === 'lost') return;
		if (back) await this.#persist(() => task.giveBack(false));
		else await this.#store(task, measured);
		await this.#persist(() => this.#note(null));
	}

	#measure({ url, conditions, steps, attempts }: LoadTask): Promise<MeasuredLoad> | MeasuredLoad {
		if (attempts <= MOST_ATTEMPTS) return this.options.lab.measure(url, conditions, steps);
		const reason = failure('internal', `the lab ended ${MOST_ATTEMPTS} times in the middle of this load`).reason;
		return { record: failedRecord(url, conditions, new Date(), reason), frames: [], picture: null, stepPicture: null };
	}

	/** Why a load is neither stored nor counted, but loaded again; null when it is stored. */
	#whyGivenBack({ key }: LoadTask, { record }: MeasuredLoad): 'lost' | 'frozen' | 'stopping' | 'killed' | null {
		if (this.#lost) return 'lost';
		if (this.#frozen) return 'frozen';
		if (record.status === 'ok') return null;
		if (this.#stopping) return 'stopping';
		if (record.failure?.code !== 'browser-killed') return null;
		const kills = (this.#kills.get(key) ?? 0) + 1;
		this.#kills.set(key, kills);
		return kills < MOST_KILLS ? 'killed' : null;
	}

	async #store(task: LoadTask, measured: MeasuredLoad): Promise<void> {
		const { log } = this.options;
		this.#kills.delete(task.key);
		try {
			await this.#persist(() => task.store(measured));
			this.#problem = null;
		} catch (error) {
			if (error instanceof LeaseLost) return;
			if (!isFull(error)) throw error;
			log.error(task.about, 'the disk is full');
			this.#problem = 'The disk is full: make room in the data folder. What was measured is kept.';
			await this.#persist(() => task.halt()).catch(() => undefined);
			await pause(FULL_DISK_PAUSE_MS);
		}
	}

	/** Write, and try again while another process holds the database: a measured load is not thrown away for that. */
	async #persist<Result>(write: () => Result): Promise<Result> {
		for (;;)
			try {
				return write();
			} catch (error) {
				if (!isBusy(error) || this.#stopping) throw error;
				await pause(LOOK_EVERY_MS);
			}
	}

	#note(jobId: number | null, withinMs: number | null = null): void {
		const { db, lab } = this.options;
		const browser = findChromium();
		const missing = browser ? null : 'Chromium was not found. Install it with: apt-get install chromium';
		writeLabState(db, {
			owner: this.#owner,
			pid: process.pid,
			state: withinMs === null ? 'idle' : 'busy',
			jobId,
			browser,
			problem: missing ?? this.#problem,
			loadUntil: withinMs === null ? null : new Date(Date.now() + withinMs).toISOString(),
			sandboxed: lab.sandboxed
		});
	}

	#leave(): void {
		const { db, log } = this.options;
		if (!this.#lock) return;
		try {
			this.#task?.giveBack(false);
			clearLabState(db, this.#owner);
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'the next lab will take over what is left');
		}
		this.#lock.release();
	}
}
