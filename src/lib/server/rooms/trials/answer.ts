/** The answer of a trial as the API gives it. */
import { withoutSecrets } from '$core/load/conditions/conditions';
import { armWithoutSecrets } from '$core/trial/design/publicArm';
import { stagesOf } from '$core/trial/design/comparisons';
import { isLog } from '$core/trial/design/log';
import { decisive, roundsOfNextLook } from '$core/trial/design/looks';
import { isOpenStatus, publicStatus } from '$core/trial/design/status';
import type { Judgement, ShiftResult, TrialDesign } from '$core/trial/types';
import { describeReason } from '$core/wording/reasons';
import { describeTrialState } from '$core/wording/trialState';
import type { Db } from '../../base/db/connection';
import { bestForApi } from './bestView';
import { putOffFrom } from './lateView';
import { lateSeenOf } from './queries/lateView';
import { judgementForPage, type JudgeElsewhere } from './judgement';
import { lastStage } from './queries/slots';
import type { Trial } from './trial';
import { loadsOfTrial, type LoadSummary } from '../loads/view';

/** Why the trial rests, in a sentence; null when its state says all. */
export function messageOf(db: Db, trial: Trial): string | null {
	return describeTrialState(trial, trial.design, lastStage(db, trial.id));
}

/** `GET /api/trials/:id`. Results are those of the last look: empty before the first. */
export async function trialAnswer(db: Db, trial: Trial, judgeElsewhere?: JudgeElsewhere) {
	const loads = loadsOfTrial(db, trial.id);
	const { design } = trial;
	const judgement = await judgementForPage(db, trial, loads, judgeElsewhere);
	return {
		id: trial.id,
		question: trial.question,
		kind: design.kind,
		aim: design.aim ?? 'baseline',
		status: publicStatus(trial.status),
		message: messageOf(db, trial),
		progress: trial.progress,
		arms: design.arms.map(armWithoutSecrets),
		conditions: design.conditions.map(withoutSecrets),
		rounds: design.rounds,
		warmups: design.warmups,
		seed: design.seed,
		primary: design.primary,
		adaptive: design.adaptive ?? false,
		looks: judgement.looks,
		nextLook: isOpenStatus(trial.status) ? roundsOfNextLook(design) : null,
		recipe: judgement.recipe,
		paused: trial.status === 'paused',
		loads: loads.map(loadAnswer),
		spread: judgement.spread,
		results: resultsOf(design, judgement),
		...stagesAnswer(design),
		...bestForApi({ design, judgement, putOffOf: putOffFrom(design, lateSeenOf(db, trial.id)) }),
		withoutExcluded: judgement.withoutExcluded?.map(resultAnswer) ?? null
	};
}

/** All that was judged; in a log each with what it is against. */
function resultsOf(design: TrialDesign, judgement: Judgement) {
	if (!isLog(design)) return decisive(judgement).map(resultAnswer);
	const told = (against: 'start' | 'previous') => (result: ShiftResult) => ({ ...resultAnswer(result), against });
	const { results, steps = [], samplePages } = judgement;
	return [
		...[...results, ...(samplePages?.start ?? [])].map(told('start')),
		...[...steps, ...(samplePages?.previous ?? [])].map(told('previous'))
	];
}

/** What became of each stage of a log. */
function stagesAnswer(design: TrialDesign) {
	if (!isLog(design)) return {};
	const stages = stagesOf(design).map(({ id, name, decision, decisionNote, undoes }, stage) => ({
		stage,
		arm: id,
		name,
		decision: decision ?? 'open',
		note: decisionNote ?? null,
		undoes: undoes ?? null
	}));
	return { plannedSteps: design.plannedSteps, stages };
}

function resultAnswer(result: ShiftResult) {
	return { ...result, reason: result.reason && describeReason(result.reason) };
}

function loadAnswer(load: LoadSummary) {
	return {
		id: load.id,
		arm: load.armId,
		stage: load.stage,
		round: load.round,
		condition: load.conditionId,
		warmup: load.warmup,
		status: load.status,
		reason: load.reason,
		capped: load.capped,
		excluded: load.excluded,
		startedAt: load.startedAt,
		metrics: load.figures
	};
}
