/** What a planned trial costs, before its first load: pure. */
import { hasStages, isSamePage } from './kinds';
import { LOOKS } from './looks';
import type { TrialKind } from '../types';

export interface Plan {
	kind: TrialKind;
	/** As written down; a same-page trial has one. */
	arms: number;
	conditions: number;
	primary: number;
	adaptive: boolean;
	/** Of a trial that does not adapt. */
	rounds: number;
	warmups: number;
	/** A reference page is loaded with every stage. */
	hasReference: boolean;
}

export interface PlanEstimate {
	/** At most, of every arm. */
	rounds: number;
	/** At most, warm-ups and all. */
	loads: number;
	/** Tests that share the error level. */
	tests: number;
}

/** Loads that check what comes late, once the rounds are done: of each arm two under each of the conditions. */
export function lateLoadsOf({ kind, arms, conditions }: Pick<Plan, 'kind' | 'arms' | 'conditions'>): number {
	return isSamePage(kind) ? 0 : arms * conditions * 2;
}

export function estimatePlan(plan: Plan): PlanEstimate {
	const perRound = (isSamePage(plan.kind) ? 2 : plan.arms) * (plan.hasReference && hasStages(plan.kind) ? 2 : 1);
	const rounds = plan.adaptive && !hasStages(plan.kind) ? Math.max(...LOOKS) : plan.rounds;
	return {
		rounds,
		loads: perRound * plan.conditions * (rounds + plan.warmups),
		tests: Math.max(1, (isSamePage(plan.kind) ? 2 : plan.arms) - 1) * plan.primary * plan.conditions
	};
}
