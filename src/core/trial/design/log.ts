/** A log of steps: one page, changed again and again. What each step is compared with, and what it may spend. */
import type { StepDecision, TrialArm, TrialDesign, TrialKind } from '../types';
import { comparisonsOf, stagesOf, type Comparison } from './comparisons';
import { waysToChoose } from '../../stats/deals';
import { KINDS, type KindRules } from './kinds';
import { FIRST_RESERVE, PLAN_SPENDS } from './looks';

export const STEP_DECISIONS: readonly StepDecision[] = ['kept', 'weakened', 'taken-back', 'open'];
export const USUAL_STEPS = 4;
/** Beside the page as it was. */
export const MOST_STEPS = 12;
/** Beside the log's own page: each adds its loads to every round. */
export const MOST_SAMPLE_PAGES = 5;

type Log = Pick<TrialDesign, 'arms' | 'plannedSteps'>;

export const isLog = ({ plannedSteps }: Pick<TrialDesign, 'plannedSteps'>): boolean => plannedSteps != null;

/** How many arms a trial may have. Of a log the page as it is is enough: its steps come one by one. */
export function armLimits(
	kind: TrialKind,
	design: Pick<TrialDesign, 'plannedSteps'>
): Pick<KindRules, 'leastArms' | 'mostArms'> {
	return isLog(design) ? { leastArms: 1, mostArms: MOST_STEPS + 1 } : KINDS[kind];
}

/** Fewer rounds a stage cannot reach the shares of so many steps. */
export const fewestStepRounds = (plannedSteps: number): number => (plannedSteps > USUAL_STEPS ? 7 : 6);

/**
 * Rounds a stage from which on a difference in one of several tests can be called. Each test is farthest apart under
 * two deals of its own, the stages parted wholly one way or the other: where the rest go their own ways, so many deals
 * are as extreme as the one that was seen.
 * @param tests metrics times conditions that are judged together
 */
export function usefulStepRounds(plannedSteps: number, tests: number): number {
	const share = stepShare({ plannedSteps }, { stage: 2, against: 'previous' });
	let rounds = fewestStepRounds(plannedSteps);
	while ((2 * tests) / waysToChoose(2 * rounds, rounds) > share) rounds++;
	return rounds;
}

export interface StepComparison extends Comparison {
	/** Number of the step's stage, from 1. */
	stage: number;
	/** `both`: the stage before is the start. */
	against: 'previous' | 'start' | 'both';
}

/**
 * Each step against the stage before it, and against the start. One that takes a step back is held against the stage
 * to which the page should have returned.
 */
export function stepComparisons(design: Log): StepComparison[] {
	const stages = stagesOf(design);
	const [start] = stages as [TrialArm];
	return stages.slice(1).flatMap((arm, i): StepComparison[] => {
		const stage = i + 1;
		const baseline = stages[stageBefore(stages, arm, stage)]!;
		if (baseline === start) return [{ baseline, arm, stage, against: 'both' }];
		return [
			{ baseline, arm, stage, against: 'previous' },
			{ baseline: start, arm, stage, against: 'start' }
		];
	});
}

function stageBefore(stages: readonly TrialArm[], { undoes }: TrialArm, stage: number): number {
	const undone = undoes == null ? -1 : stages.findIndex(({ id }) => id === undoes);
	return undone > 0 ? undone - 1 : stage - 1;
}

/**
 * What a comparison of a step may spend: of the plan's 4 % half is shared equally by the steps, half by the comparisons
 * with the start. Steps beyond the plan draw on the last per cent: 0.5, 0.25, 0.125 % for both together.
 */
export function stepShare(
	{ plannedSteps }: Pick<TrialDesign, 'plannedSteps'>,
	{ stage, against }: Pick<StepComparison, 'stage' | 'against'>
): number {
	const planned = plannedSteps ?? USUAL_STEPS;
	const both = stage <= planned ? PLAN_SPENDS / planned : FIRST_RESERVE * 0.5 ** (stage - planned - 1);
	return against === 'both' ? both : both / 2;
}

/** The step that was taken back last and has not been measured without; null when there is none. */
export function awaitsReturn(design: Log): TrialArm | null {
	const last = stagesOf(design).at(-1);
	return last?.decision === 'taken-back' ? last : null;
}

/** What evidence explains: in a log each step against the stage before it; else as it is judged. */
export function explainedPairs(design: TrialDesign): Comparison[] {
	if (!isLog(design)) return comparisonsOf(design);
	return stepComparisons(design)
		.filter(({ against }) => against !== 'start')
		.map(({ baseline, arm }) => ({ baseline, arm }));
}
