/** Making, starting, pausing and ending trials: what the interface and the API both call. */
import { randomInt } from 'node:crypto';
import { lacksSecrets } from '$core/load/conditions/conditions';
import { stateLacksSecrets } from '$core/load/journey/visitorState';
import { armsOf, MOST_ROUNDS_ASKED, primaryOf, type NewTrialInput } from '$core/trial/design/input';
import { stagesOf } from '$core/trial/design/comparisons';
import { hasStages } from '$core/trial/design/kinds';
import { LOOKS } from '$core/trial/design/looks';
import { planLoads, planMore, startTimes } from '$core/trial/design/plan';
import type { Setup } from '$core/trial/design/setup';
import type { TrialDesign } from '$core/trial/types';
import { targetsByConditions } from '$core/clients/targets';
import { checkClient } from '../clients/clients';
import { atPlaceOf } from '../clients/sites';
import { findConditions, namesOfConditions } from '../conditions/saved';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { insertRequest } from '../loads/requested';
import { queueLateLoads } from './lateLoads';
import { insertMarker } from './queries/notes';
import { cancelQueuedSlots, lastRound, lastStage, requeueSlots, wholeRounds } from './queries/slots';
import { insertPlan } from './slots';
import { settleTrial, takeLook } from './progress';
import { findTrial, type Trial } from './trial';
import { deleteTrialRow, insertTrial, setFirst, setTrialStatus, updateDesign, updateSetup } from './queries/trials';
import { findClient } from '../clients/view';
import { checkPage } from '../pages/view';
import { pageLabel } from '$core/load/requests/address';

/** Save a trial as a draft, with a frozen copy of its conditions. @returns its id */
export function createTrial(db: Db, input: NewTrialInput): number {
	checkDesign(input);
	checkClient(db, input.clientId);
	if (input.repeatOf !== null && !findTrial(db, input.repeatOf))
		throw new NotPossible(422, `There is no trial ${input.repeatOf} to repeat.`, 'repeatOf');
	const { clientId, question, repeatOf } = input;
	return insertTrial(db, { clientId, question, repeatOf, design: designFrom(db, input) });
}

function checkDesign(input: NewTrialInput): void {
	if (hasStages(input.kind) && input.adaptive)
		throw new NotPossible(
			422,
			'Stages follow each other, so that nothing can be decided before the last one: an adaptive trial needs interleaved arms.',
			'adaptive'
		);
	if (input.returnStage !== null && (!hasStages(input.kind) || input.returnStage !== input.arms.length - 1))
		throw new NotPossible(
			422,
			'The change is taken back in the last stage of a before-and-after trial of three or more.',
			'returnStage'
		);
	if (!hasStages(input.kind) && input.referenceUrl)
		throw new NotPossible(
			422,
			'A reference page belongs to a before-and-after trial: interleaved rounds need none.',
			'referenceUrl'
		);
}

function designFrom(
	db: Db,
	input: NewTrialInput
): Omit<TrialDesign, 'arms'> & { arms: Omit<TrialDesign['arms'][number], 'id'>[] } {
	const usual = usualOf(db, input.clientId);
	return {
		kind: input.kind,
		...(input.aim === 'baseline' ? {} : { aim: input.aim }),
		arms: armsFrom(db, input),
		conditions: conditionsFrom(db, input.conditions).map((conditions) =>
			atPlaceOf(
				db,
				input.clientId,
				input.arms.map(({ url }) => url),
				conditions
			)
		),
		rounds: input.adaptive ? LOOKS.at(-1)! : input.rounds,
		warmups: input.warmups,
		seed: input.seed ?? randomInt(0, 0xffffffff),
		primary: primaryOf(input),
		adaptive: input.adaptive,
		settleWithinMs: input.settleWithinS === null ? null : input.settleWithinS * 1000,
		steps: input.steps,
		lateLoads: input.lateLoads,
		mustSend: input.mustSend ?? usual.mustSend,
		returnStage: input.returnStage,
		...(input.plannedSteps === null ? {} : { plannedSteps: input.plannedSteps }),
		...(input.arms.some(({ rewrites }) => rewrites?.length) ? { twin: input.twin, rehearses: input.rehearses } : {}),
		intended: input.intended,
		notBefore: input.notBefore === null ? null : new Date(input.notBefore).toISOString(),
		spreadMinutes: input.spreadMinutes,
		margins: (input.margins as TrialDesign['margins']) ?? usual.margins,
		...(input.targets ? { targets: input.targets as TrialDesign['targets'] } : usual.targets)
	};
}

/** What a client's trials have unless the analyst says otherwise. */
function usualOf(db: Db, clientId: number | null): Pick<TrialDesign, 'mustSend' | 'margins'> & { targets: object } {
	const client = clientId === null ? null : findClient(db, clientId);
	if (!client) return { mustSend: [], margins: undefined, targets: {} };
	const { mustSend, margins, targets } = client;
	return {
		mustSend,
		margins: Object.keys(margins).length ? margins : undefined,
		targets: targets.length ? targetsByConditions(targets) : {}
	};
}

function armsFrom(db: Db, input: NewTrialInput) {
	const arms = armsOf(input);
	arms.forEach((arm, i) => checkPage(db, arm.pageId ?? null, `arms.${i}.pageId`));
	const everyStage = (name: string, url: string, page: string | null) => ({
		name,
		url: new URL(url).href,
		page,
		baseline: false,
		reference: true
	});
	return [
		...arms,
		...(input.referenceUrl ? [everyStage('Reference page', input.referenceUrl, null)] : []),
		...input.samplePages.map((url) => everyStage(pageLabel(url), url, pageLabel(url)))
	];
}

function conditionsFrom(db: Db, ids: readonly string[]) {
	return ids.map((id, i) => {
		const found = findConditions(db, id);
		if (found) return found;
		const words = `Unknown conditions “${id}”. Known are: ${namesOfConditions(db)}.`;
		throw new NotPossible(422, words, `conditions.${i}`);
	});
}

/** @throws NotPossible when there is none */
export function existingTrial(db: Db, id: number): Trial {
	const trial = findTrial(db, id);
	if (!trial) throw new NotPossible(404, `There is no trial ${id}.`);
	return trial;
}

/**
 * Queue the loads of a trial, or of one stage of a before-and-after trial. Pressed twice, it queues once. A paused
 * trial
 * goes on.
 * @param stage number from 0; needed for before-and-after trials only
 */
export function startTrial(db: Db, id: number, stage?: number): void {
	db.transaction(() => {
		const trial = existingTrial(db, id);
		if (trial.status === 'paused') return resumeTrial(db, id);
		if (trial.status === 'queued' || trial.status === 'running') {
			if (stage !== undefined && stage !== lastStage(db, id))
				throw new NotPossible(409, 'Another stage of this trial is still running.', 'stage');
			return;
		}
		if (trial.status === 'done') throw new NotPossible(409, 'This trial is done. Add rounds to it, or repeat it.');
		if (trial.status === 'failed') throw new NotPossible(409, 'Not one load of this trial succeeded. Repeat it.');
		requireSecrets(trial.design);
		if (trial.status === 'stopped') requeueSlots(db, id);
		else queueStage(db, trial, hasStages(trial.design.kind) ? nextStage(db, trial, stage) : 0);
		setTrialStatus(db, id, 'queued');
		// Stopped when all its rounds were done, it has nothing left to load.
		settleTrial(db, id);
	}).immediate();
}

/** Secrets stay with the Zafra that a trial came from: a load without them would answer another question. */
function requireSecrets({ conditions, arms }: TrialDesign): void {
	if (!conditions.some(lacksSecrets) && !arms.some(({ before }) => before && stateLacksSecrets(before))) return;
	throw new NotPossible(
		409,
		'Header values, cookies and passwords of this trial stayed with the Zafra that it came from. Make it anew, with conditions and visitor states that have them.'
	);
}

function queueStage(db: Db, { id, design }: Trial, stage: number): void {
	const plan = planLoads(design).filter((load) => load.stage === stage);
	const from = design.notBefore && design.notBefore > nowIso() ? design.notBefore : nowIso();
	const isScheduled = design.notBefore || design.spreadMinutes;
	insertPlan(db, id, plan, isScheduled ? startTimes(plan, from, design.spreadMinutes ?? 0) : []);
}

function nextStage(db: Db, trial: Trial, stage: number | undefined): number {
	const next = lastStage(db, trial.id) + 1;
	if (next >= stagesOf(trial.design).length)
		throw new NotPossible(409, 'Write the next step down first: it says what was changed.', 'stage');
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
	const trial = existingTrial(db, id);
	if (!hasStages(trial.design.kind))
		throw new NotPossible(409, 'Only a before-and-after trial has changes between its stages.');
	insertMarker(db, id, { stage: lastStage(db, id) + 1, ...change });
}

/** Its loads come before those of all other trials and of watched pages, from the next round on. */
export function putFirst(db: Db, id: number): void {
	db.transaction(() => {
		const { status } = existingTrial(db, id);
		if (status !== 'queued' && status !== 'running') throw new NotPossible(409, 'This trial is not running.');
		setFirst(db, id, nowIso());
	}).immediate();
}

/** The load under way ends; what is queued stays and waits. */
export function pauseTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existingTrial(db, id);
		if (trial.status === 'paused') return;
		if (trial.status !== 'queued' && trial.status !== 'running')
			throw new NotPossible(409, 'This trial is not running.');
		setTrialStatus(db, id, 'paused');
	}).immediate();
}

export function resumeTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existingTrial(db, id);
		if (trial.status !== 'paused') throw new NotPossible(409, 'This trial is not paused.');
		setTrialStatus(db, id, 'queued');
		settleTrial(db, id);
	}).immediate();
}

/**
 * No further loads; what was measured stays and is looked at, and the trial can be started again where it stopped. One
 * that had its answer before rounds were added keeps it, with all that can be done with an answer.
 */
export function stopTrial(db: Db, id: number): void {
	db.transaction(() => {
		const trial = existingTrial(db, id);
		if (trial.status === 'stopped') return;
		if (trial.status !== 'queued' && trial.status !== 'running' && trial.status !== 'paused')
			throw new NotPossible(409, 'This trial is not running.');
		// While the open jobs still show which round is torn: only whole ones are looked at.
		takeLook(db, trial, 'stop');
		cancelQueuedSlots(db, id);
		if ((trial.design.added ?? 0) > 0) return setTrialStatus(db, id, 'done');
		setTrialStatus(db, id, 'stopped', 'analyst');
	}).immediate();
}

/** More rounds for a trial that has ended: a further look at the data, which draws on the reserve of its level. */
export function addRounds(db: Db, id: number, more: number): void {
	db.transaction(() => {
		const trial = existingTrial(db, id);
		const { design } = trial;
		if (trial.status !== 'done') throw new NotPossible(409, 'Rounds can be added once the trial is done.');
		if (hasStages(design.kind))
			throw new NotPossible(409, 'The stages of this trial are in the past: repeat the trial instead.');
		requireSecrets(design);
		const from = wholeRounds(db, id, 0);
		const planned = lastRound(db, id);
		if (!Number.isInteger(more) || more < 1 || from + more > MOST_ROUNDS_ASKED)
			throw new NotPossible(422, `Add a whole number of rounds, at least 1 and ${MOST_ROUNDS_ASKED} in all.`, 'rounds');
		updateDesign(db, trial, { rounds: from + more, added: (design.added ?? 0) + 1 });
		// Rounds that were added and stopped are taken up again before new ones are planned.
		requeueSlots(db, id, from + more);
		if (from + more > planned) insertPlan(db, id, planMore(design, planned, from + more));
		setTrialStatus(db, id, 'queued');
	}).immediate();
}

/** Toggle whether a line of the fairness sheet differs on purpose. @returns the lines that do */
export function intendDifference(db: Db, id: number, line: string): string[] {
	const trial = existingTrial(db, id);
	const before = trial.design.intended ?? [];
	const intended = before.includes(line) ? before.filter((other) => other !== line) : [...before, line];
	updateDesign(db, trial, { intended });
	return intended;
}

/** What the page of an arm runs on. */
export function changeSetup(db: Db, id: number, armId: number, setup: Setup): void {
	if (!updateSetup(db, armId, id, setup)) throw new NotPossible(404, 'There is no such variant in this trial.');
}

/** One nudged load of an arm under each of the trial's conditions: what it holds back. @returns ids of the jobs */
export function nudgeArm(db: Db, id: number, armId: number): number[] {
	const trial = findTrial(db, id);
	const arm = trial?.design.arms.find((candidate) => candidate.id === armId);
	if (!trial || !arm) throw new NotPossible(404, 'There is no such arm.');
	requireSecrets(trial.design);
	return trial.design.conditions.map((conditions) =>
		insertRequest(
			db,
			{ kind: 'arm', id: armId },
			{
				url: arm.url,
				before: arm.before,
				conditions: { ...conditions, input: 'nudge' },
				steps: []
			}
		)
	);
}

/** What an arm does late under each of the conditions, by itself and after an input. @returns ids of the jobs */
export function checkLateWork(db: Db, id: number, armId: number): number[] {
	const trial = findTrial(db, id);
	const arm = trial?.design.arms.find((candidate) => candidate.id === armId);
	if (!trial || !arm) throw new NotPossible(404, 'There is no such arm.');
	requireSecrets(trial.design);
	return queueLateLoads(db, trial, arm);
}

/** With all its loads and what was derived from them. */
export function deleteTrial(db: Db, id: number): void {
	if (!deleteTrialRow(db, id)) throw new NotPossible(404, `There is no trial ${id}.`);
}
