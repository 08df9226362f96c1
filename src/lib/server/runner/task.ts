/** What a lab can be asked for, one shape for loads of trials and loads outside trials. */
import type { Conditions } from '$core/load/conditions';
import type { MeasuredLoad } from '$core/load/record';
import type { Step } from '$core/load/steps';
import type { Db } from '../db/connection';
import { finishJob, leaseJob, releaseJobs, renewJob, retryJob, type Job } from '../db/jobs';
import { ALONE, insertLoad } from '../db/loads';
import { finishSingle, giveSinglesBack, leaseSingle, renewSingle, type Single } from '../db/singles';
import { findTrial, setTrialStatus, type Trial } from '../db/trials';
import { judgementOf } from '../queue/answer';
import { settleTrial } from '../queue/trials';
import { haltForSpace } from './space';

export interface LoadTask {
	/** For the log. */
	about: object;
	jobId: number | null;
	/** The same for each try of the same load. */
	key: string;
	url: string;
	conditions: Conditions;
	steps: readonly Step[];
	attempts: number;
	/** @returns false when the lease is no longer this lab's */
	renew(): boolean;
	/** @param countAttempt false when the lab, not the load, is why it ends */
	giveBack(countAttempt: boolean): void;
	/** In one transaction; nothing when the lease was lost. */
	store(measured: MeasuredLoad): void;
	/** The disk is full: nothing more of this is tried. */
	halt(): void;
}

export interface SettleTask {
	job: Job;
	trial: Trial;
	url: string;
	conditions: Conditions;
}

/** A load that the analyst waits for goes before the next round. */
export function leaseSingleTask(db: Db, owner: string): LoadTask | null {
	const single = leaseSingle(db, owner);
	return single && singleTask(db, owner, single);
}

function singleTask(db: Db, owner: string, single: Single): LoadTask {
	const { id, url, conditions, steps, attempts, clientId } = single;
	return {
		about: { single: id },
		jobId: null,
		key: `single ${id}`,
		url,
		conditions,
		steps,
		attempts,
		renew: () => renewSingle(db, id, owner),
		giveBack: (countAttempt) => giveSinglesBack(db, owner, countAttempt),
		store: (measured) =>
			db
				.transaction(() => {
					const loadId = insertLoad(db, { ...ALONE, conditionId: conditions.id, clientId }, measured);
					if (!finishSingle(db, id, owner, loadId)) throw new LeaseLost();
				})
				.immediate(),
		halt: () => giveSinglesBack(db, owner, false)
	};
}

export class LeaseLost extends Error {}

/** The next job of a trial: a load, or the wait for a stable page. */
export function leaseTrialTask(db: Db, owner: string): LoadTask | SettleTask | null {
	const job = leaseJob(db, owner);
	if (!job) return null;
	const trial = findTrial(db, job.trialId)!;
	const arm = trial.design.arms.find((one) => one.id === job.armId)!;
	const conditions = trial.design.conditions.find((one) => one.id === job.conditionId)!;
	if (trial.status === 'queued') setTrialStatus(db, trial.id, 'running');
	return job.settle ? { job, trial, url: arm.url, conditions } : trialTask(db, owner, job, trial, arm, conditions);
}

function trialTask(
	db: Db,
	owner: string,
	job: Job,
	trial: Trial,
	arm: { name: string; url: string },
	conditions: Conditions
): LoadTask {
	return {
		about: { trial: trial.id, arm: arm.name, conditions: conditions.id, round: job.round },
		jobId: job.id,
		key: `job ${job.id}`,
		url: arm.url,
		conditions,
		steps: trial.design.steps ?? [],
		attempts: job.attempts,
		renew: () => renewJob(db, job.id, owner),
		giveBack: (countAttempt) => releaseJobs(db, owner, countAttempt),
		store: (measured) => {
			db.transaction(() => {
				if (!finishJob(db, job.id, owner)) return;
				insertLoad(db, { ...job, jobId: job.id }, measured);
				if (measured.record.status === 'failed') retryJob(db, job);
				settleTrial(db, trial.id);
			}).immediate();
			// Judged here, so that a sheet is always served from the cache.
			const now = findTrial(db, trial.id);
			if (now) judgementOf(db, now);
		},
		halt: () => haltForSpace(db, trial.id, owner)
	};
}
