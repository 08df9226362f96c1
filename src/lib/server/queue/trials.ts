/** Making, starting and stopping trials: what the interface and the API both call. */
import { randomInt } from 'node:crypto';
import { planLoads } from '../../../core/trial/plan';
import { conditionsOf, primaryOf, type NewTrialInput } from '../../../core/trial/input';
import type { Db } from '../db/connection';
import { cancelJobs, insertJobs, lastStage, openJobs, requeueJobs } from '../db/jobs';
import { findTrial, insertTrial, setTrialStatus, type Trial } from '../db/trials';

/** A wish that the state of things does not allow; worded for the analyst. */
export class NotPossible extends Error {
	constructor(
		readonly status: 404 | 409 | 422,
		message: string,
		readonly path: string | null = null
	) {
		super(message);
	}
}

/** Save a trial as a draft. Exactly one arm is the baseline: the first unless another is named. */
export function createTrial(db: Db, input: NewTrialInput): number {
	const named = input.arms.findIndex((arm) => arm.baseline);
	const baseline = Math.max(0, named);
	if (input.referenceUrl && input.kind !== 'before-after')
		throw new NotPossible(
			422,
			'A reference page belongs to a before-and-after trial: interleaved rounds need none.',
			'referenceUrl'
		);
	const arms = input.arms.map((arm, i) => ({
		name: arm.name,
		url: new URL(arm.url).href,
		baseline: i === baseline,
		reference: false
	}));
	if (input.referenceUrl)
		arms.push({ name: 'Reference page', url: new URL(input.referenceUrl).href, baseline: false, reference: true });
	return insertTrial(db, {
		clientId: input.clientId,
		question: input.question,
		design: {
			kind: input.kind,
			arms,
			conditions: conditionsOf(input.conditions),
			rounds: input.rounds,
			warmups: input.warmups,
			seed: input.seed ?? randomInt(0, 0xffffffff),
			primary: primaryOf(input)
		}
	});
}

function existing(db: Db, id: number): Trial {
	const trial = findTrial(db, id);
	if (!trial) throw new NotPossible(404, `There is no trial ${id}.`);
	return trial;
}

/** Stages of a before-and-after trial, in the order of time. */
export function stagesOf(trial: Trial): Trial['design']['arms'] {
	return trial.design.arms.filter((arm) => !arm.reference);
}

/**
 * Queue the loads of a trial, or of one stage of a before-and-after trial. Pressed twice, it queues once.
 * @param stage number from 0; needed for before-and-after trials only
 */
export function startTrial(db: Db, id: number, stage?: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		if (trial.status === 'queued' || trial.status === 'running') {
			if (stage !== undefined && stage !== lastStage(db, id))
				throw new NotPossible(409, 'Another stage of this trial is still running.', 'stage');
			return;
		}
		if (trial.status === 'done') throw new NotPossible(409, 'This trial is done. Make a new one to load the pages again.');
		if (trial.status === 'stopped') requeueJobs(db, id);
		else {
			const wanted = trial.design.kind === 'before-after' ? nextStage(db, trial, stage) : 0;
			insertJobs(
				db,
				id,
				planLoads(trial.design).filter((load) => load.stage === wanted)
			);
		}
		setTrialStatus(db, id, 'queued');
	}).immediate();
}

function nextStage(db: Db, trial: Trial, stage: number | undefined): number {
	const next = lastStage(db, trial.id) + 1;
	if (stage === undefined || stage === next) return next;
	if (stage < next) throw new NotPossible(409, `Stage ${stage} was started before.`, 'stage');
	throw new NotPossible(409, `Stage ${next} comes first.`, 'stage');
}

/** No further loads; what was measured stays, and the trial can be started again where it stopped. */
export function stopTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		if (trial.status === 'stopped') return;
		if (trial.status !== 'queued' && trial.status !== 'running')
			throw new NotPossible(409, 'This trial is not running.');
		cancelJobs(db, id);
		setTrialStatus(db, id, 'stopped', 'Stopped by the analyst.');
	}).immediate();
}

/** After a load: a trial without open jobs is done, or waits for its next stage. */
export function settleTrial(db: Db, id: number): void {
	const trial = findTrial(db, id);
	if (!trial || trial.status === 'stopped' || openJobs(db, id) > 0) return;
	const stages = stagesOf(trial);
	const last = lastStage(db, id);
	if (trial.design.kind === 'before-after' && last < stages.length - 1)
		setTrialStatus(
			db,
			id,
			'waiting',
			`“${stages[last]!.name}” is measured. Make the change on the site, then start “${stages[last + 1]!.name}”.`
		);
	else setTrialStatus(db, id, 'done');
}
