/** Making, starting, pausing and ending trials: what the interface and the API both call. */
import { randomInt } from 'node:crypto';
import { planLoads, planMore, startTimes } from '$core/trial/plan';
import { armsOf, MOST_ROUNDS_ASKED, primaryOf, type NewTrialInput } from '$core/trial/input';
import { stagesOf as stagesOfDesign } from '$core/trial/comparisons';
import { awaitsAddedRounds, isDecided, isHopeless, isLookDue, LOOKS, nextLook, stageLook } from '$core/trial/looks';
import type { Look, TrialDesign } from '$core/trial/types';
import { hasClient } from '../db/clients';
import { findConditions, listConditions } from '../db/conditions';
import { nowIso, type Db } from '../db/connection';
import { insertMarker } from '../db/evidence';
import { cancelJobs, dropOpenJobs, insertJobs, lastStage, openJobs, requeueJobs, wholeRounds } from '../db/jobs';
import { excludeLoad, findLoad } from '../db/loads';
import { changeDesign, findTrial, insertTrial, setPaused, setTrialStatus, type Trial } from '../db/trials';
import { judgementOf } from './answer';

/** A wish that the state of things does not allow; worded for the analyst. */
export class NotPossible extends Error {
	constructor(
		readonly status: 400 | 404 | 409 | 413 | 422,
		message: string,
		readonly path: string | null = null
	) {
		super(message);
	}
}

/** Save a trial as a draft, with a frozen copy of its conditions. */
export function createTrial(db: Db, input: NewTrialInput): number {
	if (input.referenceUrl && input.kind !== 'before-after')
		throw new NotPossible(
			422,
			'A reference page belongs to a before-and-after trial: interleaved rounds need none.',
			'referenceUrl'
		);
	if (input.adaptive && input.kind === 'before-after')
		throw new NotPossible(
			422,
			'Stages follow each other, so that nothing can be decided before the last one: an adaptive trial needs interleaved arms.',
			'adaptive'
		);
	checkClient(db, input.clientId);
	if (input.repeatOf !== null && !findTrial(db, input.repeatOf))
		throw new NotPossible(422, `There is no trial ${input.repeatOf} to repeat.`, 'repeatOf');
	const conditions = input.conditions.map((id, i) => {
		const found = findConditions(db, id);
		if (found) return found;
		throw new NotPossible(
			422,
			`Unknown conditions “${id}”. Known are: ${listConditions(db)
				.map((one) => one.id)
				.join(', ')}.`,
			`conditions.${i}`
		);
	});
	const arms = armsOf(input);
	if (input.referenceUrl)
		arms.push({ name: 'Reference page', url: new URL(input.referenceUrl).href, baseline: false, reference: true });
	return insertTrial(db, {
		clientId: input.clientId,
		question: input.question,
		repeatOf: input.repeatOf,
		design: {
			kind: input.kind,
			arms,
			conditions,
			rounds: input.adaptive ? LOOKS.at(-1)! : input.rounds,
			warmups: input.warmups,
			seed: input.seed ?? randomInt(0, 0xffffffff),
			primary: primaryOf(input),
			adaptive: input.adaptive,
			settleWithinMs: input.settleWithinS === null ? null : input.settleWithinS * 1000,
			steps: input.steps,
			intended: input.intended,
			notBefore: input.notBefore === null ? null : new Date(input.notBefore).toISOString(),
			spreadMinutes: input.spreadMinutes,
			margins: input.margins as TrialDesign['margins'],
			targets: input.targets as TrialDesign['targets']
		}
	});
}

/** @throws NotPossible for a client that is not there */
export function checkClient(db: Db, clientId: number | null): void {
	if (clientId !== null && !hasClient(db, clientId))
		throw new NotPossible(422, `There is no client ${clientId}.`, 'clientId');
}

function existing(db: Db, id: number): Trial {
	const trial = findTrial(db, id);
	if (!trial) throw new NotPossible(404, `There is no trial ${id}.`);
	return trial;
}

/** Stages of a before-and-after trial, in the order of time. */
export function stagesOf(trial: Trial): Trial['design']['arms'] {
	return stagesOfDesign(trial.design);
}

/**
 * Queue the loads of a trial, or of one stage of a before-and-after trial. Pressed twice, it queues once. A paused trial
 * goes on.
 * @param stage number from 0; needed for before-and-after trials only
 */
export function startTrial(db: Db, id: number, stage?: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		if (trial.paused) return resumeTrial(db, id);
		if (trial.status === 'queued' || trial.status === 'running') {
			if (stage !== undefined && stage !== lastStage(db, id))
				throw new NotPossible(409, 'Another stage of this trial is still running.', 'stage');
			return;
		}
		if (trial.status === 'done') throw new NotPossible(409, 'This trial is done. Add rounds to it, or repeat it.');
		if (trial.status === 'stopped') requeueJobs(db, id);
		else {
			const { design } = trial;
			const wanted = design.kind === 'before-after' ? nextStage(db, trial, stage) : 0;
			const plan = planLoads(design).filter((load) => load.stage === wanted);
			const from = design.notBefore && design.notBefore > nowIso() ? design.notBefore : nowIso();
			const scheduled = design.notBefore || design.spreadMinutes;
			insertJobs(db, id, plan, scheduled ? startTimes(plan, from, design.spreadMinutes ?? 0) : []);
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

/** Before a stage: what was changed, with its settings file. */
export function noteChange(
	db: Db,
	id: number,
	change: { words: string; fileName: string | null; file: string | null }
): void {
	const trial = existing(db, id);
	if (trial.design.kind !== 'before-after')
		throw new NotPossible(409, 'Only a before-and-after trial has changes between its stages.');
	insertMarker(db, id, { stage: lastStage(db, id) + 1, ...change });
}

/** The load under way ends; what is queued stays and waits. */
export function pauseTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		if (trial.paused) return;
		if (trial.status !== 'queued' && trial.status !== 'running')
			throw new NotPossible(409, 'This trial is not running.');
		setPaused(db, id, true);
		setTrialStatus(db, id, 'waiting', 'Paused by the analyst.');
	}).immediate();
}

export function resumeTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		if (!trial.paused) throw new NotPossible(409, 'This trial is not paused.');
		setPaused(db, id, false);
		setTrialStatus(db, id, 'queued');
		settleTrial(db, id);
	}).immediate();
}

/** No further loads; what was measured stays and is looked at, and the trial can be started again where it stopped. */
export function stopTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		if (trial.status === 'stopped') return;
		if (trial.status !== 'queued' && trial.status !== 'running' && !trial.paused)
			throw new NotPossible(409, 'This trial is not running.');
		// While the open jobs still show which round is torn: only whole ones are looked at.
		takeLook(db, trial, 'stop');
		cancelJobs(db, id);
		setPaused(db, id, false);
		setTrialStatus(db, id, 'stopped', 'Stopped by the analyst.');
	}).immediate();
}

/** More rounds for a trial that has ended: a further look at the data, which draws on the reserve of its level. */
export function addRounds(db: Db, id: number, more: number): void {
	db.transaction(() => {
		const trial = existing(db, id);
		const { design } = trial;
		if (trial.status !== 'done') throw new NotPossible(409, 'Rounds can be added once the trial is done.');
		if (design.kind === 'before-after')
			throw new NotPossible(409, 'The stages of this trial are in the past: repeat the trial instead.');
		const from = wholeRounds(db, id, 0);
		if (!Number.isInteger(more) || more < 1 || from + more > MOST_ROUNDS_ASKED)
			throw new NotPossible(422, `Add a whole number of rounds, at least 1 and ${MOST_ROUNDS_ASKED} in all.`, 'rounds');
		changeDesign(db, trial, { rounds: from + more, added: (design.added ?? 0) + 1 });
		insertJobs(db, id, planMore(design, from, from + more));
		setTrialStatus(db, id, 'queued');
	}).immediate();
}

/** A look at what has been measured: from now on there is an answer as of these rounds. Looking twice at the same adds none. */
function takeLook(db: Db, trial: Trial, by: Look['by']): Trial {
	const { design, id } = trial;
	const look =
		design.kind === 'before-after' ? lookAtStage(db, trial, by) : nextLook(design, wholeRounds(db, id, 0), by);
	const isNew =
		look !== null &&
		look.rounds > 0 &&
		!design.looks?.some((known) => known.stage === look.stage && known.rounds >= look.rounds);
	if (!isNew) return trial;
	changeDesign(db, trial, { looks: [...(design.looks ?? []), look] });
	return findTrial(db, id)!;
}

/** The first stage is compared with nothing: its figures may be seen at any time. */
function lookAtStage(db: Db, { id, design }: Trial, by: Look['by']): Look | null {
	const stage = lastStage(db, id);
	return stage < 1 ? null : stageLook(design, stage, stagesOfDesign(design).length, wholeRounds(db, id, stage), by);
}

/** @param reason why the load is left out; null counts it again */
export function leaveOut(db: Db, loadId: number, reason: string | null): void {
	const load = findLoad(db, loadId);
	if (!load?.trialId) throw new NotPossible(404, `There is no load ${loadId} in a trial.`);
	if (reason !== null && reason.trim() === '')
		throw new NotPossible(422, 'Say why this load is left out: the reason stays with it.', 'reason');
	excludeLoad(db, loadId, reason === null ? null : reason.trim().slice(0, 300));
}

/** After a load: a look where one is due; a trial without open jobs is done, or waits for its next stage. */
export function settleTrial(db: Db, id: number): void {
	const trial = findTrial(db, id);
	if (!trial || trial.paused || trial.status === 'stopped') return;
	if (openJobs(db, id) > 0 && !endsEarly(db, trial)) return;
	takeLook(db, findTrial(db, id)!, awaitsAddedRounds(trial.design) ? 'added' : 'plan');
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

/** At a planned look: when all is decided, or nothing open has hope, the rest of the loads is not needed. */
function endsEarly(db: Db, trial: Trial): boolean {
	const { design, id } = trial;
	const rounds = wholeRounds(db, id, 0);
	if (!isLookDue(design, rounds) || rounds >= design.rounds) return false;
	const judgement = judgementOf(db, takeLook(db, trial, 'plan'));
	if (!isDecided(judgement) && !isHopeless(judgement)) return false;
	dropOpenJobs(db, id);
	return openJobs(db, id) === 0;
}
