/** The lab process: takes one job at a time from the queue, loads the page, writes the load. */
import { randomUUID } from 'node:crypto';
import { LAB_RECIPE } from '../../../core/metrics/score';
import type { MeasuredLoad } from '../../../core/load/record';
import { failedRecord } from '../../../lab/assemble';
import { findChromium } from '../../../lab/browser/find';
import { failure } from '../../../lab/failure';
import type { Lab } from '../../../lab/lab';
import type { Db } from '../db/connection';
import { finishJob, leaseJob, releaseLeases, type Job } from '../db/jobs';
import { keepSettling } from '../db/evidence';
import { beat, clearLabState, isAlive, readLabState, writeLabState } from '../db/labState';
import { ALONE, insertLoad } from '../db/loads';
import { finishSingle, leaseSingle, releaseSingles, type Single } from '../db/singles';
import { findTrial, setTrialStatus, type Trial } from '../db/trials';
import { judgementOf, trialWithoutJudgement } from '../queue/answer';
import { trialWithoutEvidence, workOutEvidence } from '../queue/evidence';
import { settleTrial } from '../queue/trials';
import { haltForSpace, isFull } from './space';

export interface RunnerOptions {
	db: Db;
	lab: Lab;
	log: { info(data: object, words: string): void; error(data: object, words: string): void };
}

const LOOK_EVERY_MS = 250;
const BEAT_EVERY_MS = 2000;
/** An idle lab gives its browser's memory back. */
const CLOSE_BROWSER_AFTER_MS = 60_000;
/** A load that took the runner down this often is given up. */
const MOST_ATTEMPTS = 3;

export interface Runner {
	/** Resolves when the runner has stopped. */
	finished: Promise<void>;
	stop(): void;
}

export function startRunner({ db, lab, log }: RunnerOptions): Runner {
	const owner = randomUUID();
	let stopping = false;
	let inCharge = false;
	/** Trials whose evidence failed once: tried again by the next runner. */
	const hopeless = new Set<number>();
	const note = (job: Job | null) =>
		writeLabState(db, {
			owner,
			pid: process.pid,
			state: job ? 'busy' : 'idle',
			jobId: job?.id ?? null,
			browser: findChromium(),
			problem: findChromium() ? null : 'Chromium was not found. Install it with: apt-get install chromium'
		});
	const heart = setInterval(() => inCharge && beat(db, owner), BEAT_EVERY_MS);

	/** Only one runner measures on a machine: wait until the one before is gone, then take over what it left. */
	async function takeCharge(): Promise<void> {
		for (;;) {
			const other = readLabState(db);
			if (stopping) return;
			if (!other || other.pid === process.pid || !isAlive(other)) break;
			await pause(LOOK_EVERY_MS);
		}
		const released = releaseLeases(db, owner);
		releaseSingles(db, owner);
		if (released) log.info({ released }, 'taking over loads that an ended runner left');
		note(null);
		inCharge = true;
	}

	async function work(): Promise<void> {
		await takeCharge();
		let idleSince = performance.now();
		let open = false;
		while (!stopping) {
			const single = leaseSingle(db, owner);
			if (single) {
				open = true;
				await runSingle(single);
				idleSince = performance.now();
			}
			const job = leaseJob(db, owner);
			if (!job) {
				if (catchUpJudgement() || (await catchUpEvidence())) continue;
				if (open && performance.now() - idleSince > CLOSE_BROWSER_AFTER_MS) {
					await lab.close();
					open = false;
				}
				await pause(LOOK_EVERY_MS);
				continue;
			}
			note(job);
			open = true;
			await runJob(job);
			note(null);
			idleSince = performance.now();
		}
	}

	function catchUpJudgement(): boolean {
		const id = trialWithoutJudgement(db);
		const trial = id === null ? null : findTrial(db, id);
		if (trial) judgementOf(db, trial);
		return trial !== null;
	}

	/** Between loads, never beside one: what is worked out would slow the load. @returns whether there was something to do */
	async function catchUpEvidence(): Promise<boolean> {
		const id = trialWithoutEvidence(db, hopeless);
		if (id === null) return false;
		try {
			await workOutEvidence(db, id);
		} catch (error) {
			hopeless.add(id);
			log.error({ trial: id, error: (error as Error).message }, 'the evidence could not be worked out');
		}
		return true;
	}

	/** A load that the analyst waits for goes before the next round. */
	async function runSingle(single: Single): Promise<void> {
		writeLabState(db, { owner, pid: process.pid, state: 'busy', jobId: null, browser: findChromium(), problem: null });
		const { url, conditions, steps } = single;
		let measured: MeasuredLoad;
		if (single.attempts > MOST_ATTEMPTS) {
			const reason = failure('internal', `the lab ended ${MOST_ATTEMPTS} times in the middle of this load`).reason;
			measured = { record: failedRecord(url, conditions, new Date(), reason), frames: [], picture: null };
		} else measured = await lab.measure(url, conditions, steps);
		log.info({ single: single.id, status: measured.record.status, labMs: measured.record.labMs }, measured.record.failure?.message ?? 'load stored');
		db.transaction(() => {
			const loadId = insertLoad(db, { ...ALONE, conditionId: conditions.id, clientId: single.clientId }, measured);
			if (!finishSingle(db, single.id, owner, loadId)) throw new Error('The lease of this load was lost.');
		}).immediate();
		note(null);
	}

	async function runJob(job: Job): Promise<void> {
		const trial = findTrial(db, job.trialId);
		const arm = trial?.design.arms.find((one) => one.id === job.armId);
		const conditions = trial?.design.conditions.find((one) => one.id === job.conditionId);
		if (!trial || !arm || !conditions) return;
		if (trial.status === 'queued') setTrialStatus(db, trial.id, 'running');
		if (job.settle) {
			const result = await lab.waitUntilStable(arm.url, conditions, trial.design.settleWithinMs ?? 0);
			db.transaction(() => {
				if (!finishJob(db, job.id, owner)) return;
				keepSettling(db, job, result);
				settleTrial(db, trial.id);
			}).immediate();
			return;
		}
		let measured: MeasuredLoad;
		if (job.attempts > MOST_ATTEMPTS) {
			const reason = failure('internal', `the lab ended ${MOST_ATTEMPTS} times in the middle of this load`).reason;
			measured = { record: failedRecord(arm.url, conditions, new Date(), reason), frames: [], picture: null, stepPicture: null };
		} else measured = await lab.measure(arm.url, conditions, trial.design.steps ?? []);
		const { record } = measured;
		log.info(
			{ trial: trial.id, arm: arm.name, conditions: conditions.id, round: job.round, status: record.status, labMs: record.labMs },
			record.failure?.message ?? 'load stored'
		);
		store(job, trial, measured);
	}

	function store(job: Job, trial: Trial, measured: MeasuredLoad): void {
		try {
			db.transaction(() => {
				if (!finishJob(db, job.id, owner)) return;
				insertLoad(db, { ...job, jobId: job.id }, measured);
				settleTrial(db, trial.id);
			}).immediate();
		} catch (error) {
			if (!isFull(error)) throw error;
			haltForSpace(db, trial.id, owner);
			log.error({ trial: trial.id }, 'the disk is full; the trial was stopped');
			return;
		}
		// Judged here, so that a sheet is always served from the cache.
		const now = findTrial(db, trial.id);
		if (now) judgementOf(db, now);
	}

	const finished = work()
		.catch((error: Error) => log.error({ error: error.message, recipe: LAB_RECIPE.version }, 'the runner stopped'))
		.finally(async () => {
			clearInterval(heart);
			await lab.close();
			if (inCharge) {
				releaseOwn();
				clearLabState(db, owner);
			}
		});
	const releaseOwn = () => releaseLeases(db, '');

	return {
		finished,
		stop() {
			stopping = true;
		}
	};
}

function pause(ms: number): Promise<void> {
	return new Promise((resolve) => setTimeout(resolve, ms));
}
