/** What a planned trial costs, before its first load: pure. */
import { hasStages, isSamePage } from './kinds';
import { LOOKS } from './looks';
import type { TrialAim, TrialKind } from '../types';

export interface Plan {
	kind: TrialKind;
	aim: TrialAim;
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
	/** Further pages of a log, loaded with every stage too. */
	samplePages?: number;
}

export interface PlanEstimate {
	/** At most, of every arm. */
	rounds: number;
	/** At most, warm-ups and all. */
	loads: number;
	/** Pairs of candidates that share the error level equally; 1 where all is one family. */
	pairCount: number;
	/** Tests that share the error level of a pair. */
	tests: number;
}

/** Loads that check what comes late, once the rounds are done: of each arm two under each of the conditions. */
export function lateLoadsOf({ kind, arms, conditions }: Pick<Plan, 'kind' | 'arms' | 'conditions'>): number {
	return isSamePage(kind) ? 0 : arms * conditions * 2;
}

/** Every candidate against every other. */
export const pairCount = (candidates: number): number => Math.max(1, (candidates * (candidates - 1)) / 2);

export function estimatePlan(plan: Plan): PlanEstimate {
	const pages = hasStages(plan.kind) ? 1 + (plan.samplePages ?? 0) : 1;
	const perStage = pages + Number(plan.hasReference && hasStages(plan.kind));
	const perRound = (isSamePage(plan.kind) ? 2 : plan.arms) * perStage;
	const rounds = plan.adaptive && !hasStages(plan.kind) ? Math.max(...LOOKS) : plan.rounds;
	const arms = isSamePage(plan.kind) ? 2 : plan.arms;
	const isBest = plan.aim === 'best';
	return {
		rounds,
		loads: perRound * plan.conditions * (rounds + plan.warmups),
		pairCount: isBest ? pairCount(arms) : 1,
		tests: (isBest ? 1 : Math.max(1, arms - 1)) * plan.primary * plan.conditions * pages
	};
}
