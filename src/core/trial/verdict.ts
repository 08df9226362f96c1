/** The one rule by which a shift with its interval becomes a verdict. `measurement.md` section 4 in code. */
import { metricOf, type MetricId } from '../metrics/catalogue';
import { normalQuantile } from '../stats/normal';
import type { Interval, Verdict } from './types';

export interface VerdictInput {
	metric: MetricId;
	shift: Interval;
	/** In the metric's unit, positive. */
	margin: number;
	/** p after Holm's correction for primary metrics, plain p for exploratory ones. */
	p: number;
	alpha: number;
}

/**
 * - No interval can be had from so few rounds: undecided.
 * - Interval wholly inside the margins: same. Margins themselves belong to the inside.
 * - p at or below alpha and the interval on one side of zero: better or worse when it lies wholly beyond the margin,
 *   else slight.
 * - Everything else: undecided.
 */
export function decide({ metric, shift, margin, p, alpha }: VerdictInput): Verdict {
	const { low, high, estimate } = shift;
	if (low === null || high === null) return 'undecided';
	if (low >= -margin && high <= margin) return 'same';
	const oneSided = low > 0 || high < 0;
	if (!oneSided || p > alpha) return 'undecided';
	if (low > margin || high < -margin) return estimate > 0 === metricOf(metric).higherIsBetter ? 'better' : 'worse';
	return 'slight';
}

/** Fewest rounds with which an exact signed-rank test can say anything when so many tests share the level: its p cannot be below 2 / 2^n. */
export function fewestRounds(tests: number, alpha: number): number {
	return Math.ceil(Math.log2((2 * Math.max(1, tests)) / alpha));
}

/** Nobody waits for more rounds than this. */
export const MOST_ROUNDS = 200;

/** Asymptotic relative efficiency of the signed-rank test against the t test for normal data: 3 / pi. */
const EFFICIENCY = 3 / Math.PI;

/**
 * Rounds that would probably decide an undecided shift, with a power of 80 % at the nearer side of the margin.
 * @param spread standard deviation of the paired differences, in the metric's unit
 * @param tests how many tests share alpha (Holm's first step)
 * @returns at least 6; null when the estimate sits so close to the margin that no sensible number would do
 */
export function roundsToDecide(
	estimate: number,
	margin: number,
	spread: number,
	options: { alpha: number; tests: number; power?: number }
): number | null {
	const distance = Math.abs(Math.abs(estimate) - margin);
	if (distance === 0) return null;
	const { alpha, tests, power = 0.8 } = options;
	const z = normalQuantile(1 - alpha / Math.max(1, tests) / 2) + normalQuantile(power);
	const rounds = Math.ceil(((z * spread) / distance) ** 2 / EFFICIENCY);
	const needed = Math.max(6, fewestRounds(tests, alpha), rounds);
	return needed > MOST_ROUNDS ? null : needed;
}
