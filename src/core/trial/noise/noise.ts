/**
 * The noise floor: what trials of one page against itself say about conditions, and what planned rounds can see by
 * it.
 */
import { conditionsFingerprint } from '../../load/conditions/sameConditions';
import type { Conditions } from '../../load/conditions/conditions';
import type { MetricId } from '../../metrics/catalogue';
import { pairedSpread } from '../../stats/signedRank';
import { present, Samples } from '../judge/samples';
import type { Judgement, TrialDesign, TrialLoad } from '../types';
import { visibleShift } from '../judge/verdict';

export interface NoiseFloor {
	/** Largest shift that the interval of no change leaves open, in the metric's unit. */
	floors: Partial<Record<MetricId, number>>;
	/** Spread of the paired differences as a share of the page's middle figure. */
	shares: Partial<Record<MetricId, number>>;
}

/** Of a same-page trial under conditions that measure alike; null when it has none or no look yet. */
export function noiseFloorOf(
	trial: { design: TrialDesign; judgement: Pick<Judgement, 'results'>; loads: readonly TrialLoad[] },
	conditions: Conditions
): NoiseFloor | null {
	const { design, judgement, loads } = trial;
	const alike = design.conditions.find((item) => conditionsFingerprint(item) === conditionsFingerprint(conditions));
	const [first, second] = design.arms;
	if (!alike || !first || !second) return null;
	const results = judgement.results.filter(
		(result) => result.condition === alike.id && result.shift?.low != null && result.shift.high !== null
	);
	if (!results.length) return null;
	const samples = new Samples(design, loads);
	const floors: NoiseFloor['floors'] = {};
	const shares: NoiseFloor['shares'] = {};
	for (const { metric, shift, baselineMedian, n } of results) {
		floors[metric] = Math.max(Math.abs(shift!.low!), Math.abs(shift!.high!));
		const figures = [first, second].map((arm) =>
			samples.byRound({ condition: alike.id, armId: arm.id }, metric, design.rounds)
		);
		const differences = present(
			figures[0]!.map((figure, i) => (figure === null || figures[1]![i] == null ? null : figures[1]![i]! - figure))
		);
		if (baselineMedian && n > 2) shares[metric] = pairedSpread(differences) / baselineMedian;
	}
	return { floors, shares };
}

/** Without a noise floor: loads of one page vary by 10 % (practice), so paired differences by 14 %. */
export const ASSUMED_SPREAD = 0.1 * Math.SQRT2;

/**
 * The smallest shift, as a share of the page's figure, that a plan sees with 80 % power.
 * @param spread of the paired differences, as a share
 * @param tests that share what the plan may spend
 */
export function visibleShare(rounds: number, spread: number, spent: number, tests: number): number {
	return visibleShift(rounds, spread, spent / Math.max(1, tests));
}
