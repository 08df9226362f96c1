/** The one rule by which a shift with its interval becomes a verdict, and what it takes to get one. */
import { metricOf, type MetricId } from '../../metrics/catalogue';
import { normalCdf, normalQuantile } from '../../stats/normal';
import type { Interval, Verdict } from '../types';

export interface VerdictInput {
	metric: MetricId;
	shift: Interval;
	/** On the scale of the shift, positive. */
	margin: number;
	/** "No difference" was ruled out, jointly over everything that the trial decides on. */
	called: boolean;
}

/**
 * - No interval can be had from so few rounds: undecided.
 * - Interval wholly inside the margins: same. Margins themselves belong to the inside.
 * - Called, and the interval on one side of zero: better or worse when it lies wholly beyond the margin, else slight.
 * - Everything else: undecided.
 */
export function decide({ metric, shift, margin, called }: VerdictInput): Verdict {
	const { low, high, estimate } = shift;
	if (low === null || high === null) return 'undecided';
	if (low >= -margin && high <= margin) return 'same';
	const oneSided = low > 0 || high < 0;
	if (!oneSided || !called) return 'undecided';
	if (low > margin || high < -margin) return estimate > 0 === metricOf(metric).higherIsBetter ? 'better' : 'worse';
	return 'slight';
}

/**
 * Fewest rounds with which joint sign flips can call anything at a level: the largest statistic has 1 flip in
 * 2^(n-1).
 */
export function fewestRounds(spent: number): number {
	return Math.ceil(Math.log2(1 / spent)) + 1;
}

/**
 * Fewest rounds with an exact signed-rank interval at a level: its widest one is left out in 2 of 2^n sign patterns.
 */
function fewestForInterval(alpha: number): number {
	return Math.ceil(Math.log2(2 / alpha));
}

/** Nobody waits for more rounds than this; a larger number is told as "more than 200". */
export const MOST_ROUNDS = 200;

/** Asymptotic relative efficiency of the signed-rank test against the t test for normal data: 3 / pi. */
const EFFICIENCY = 3 / Math.PI;
const POWER = 0.8;

/** What is known of an open metric after some rounds. */
export interface Open {
	rounds: number;
	estimate: number;
	margin: number;
	/** Standard deviation of the paired differences, on the scale of the estimate. */
	spread: number;
	/** Level at which "no difference" is tested for this metric alone, two-sided. */
	testAlpha: number;
	/** Level of the interval, two-sided. */
	intervalAlpha: number;
}

/**
 * Rounds, in all, by which an open metric is decided with a chance of 80 %: by ruling out "no difference" or by
 * bringing
 * the interval inside the margins.
 * @returns at least one more than there are; MOST_ROUNDS + 1 stands for any larger number
 */
export function roundsToDecide(open: Open): number {
	for (let rounds = open.rounds + 1; rounds <= MOST_ROUNDS; rounds++)
		if (chanceToDecide(open, rounds) >= POWER) return rounds;
	return MOST_ROUNDS + 1;
}

/**
 * The chance that an open metric is decided at a look after so many rounds in all, 0 to 1. What has been seen is kept:
 * from an estimate after n rounds, that after N is normal about it with variance s^2 (1/n - 1/N) (the predictive
 * distribution under a flat prior).
 */
export function chanceToDecide(open: Open, rounds: number): number {
	const { estimate, margin, spread, testAlpha, intervalAlpha } = open;
	if (rounds < fewestForInterval(intervalAlpha)) return 0;
	const error = (n: number) => spread / Math.sqrt(n * EFFICIENCY);
	const interval = normalQuantile(1 - intervalAlpha / 2);
	// So few rounds may show sameness and no difference.
	const differs =
		rounds < fewestRounds(testAlpha) ? Infinity : Math.max(interval, normalQuantile(1 - testAlpha / 2)) * error(rounds);
	const same = margin - interval * error(rounds);
	if (same >= differs) return 1;
	const width = Math.sqrt(Math.max(0, error(open.rounds) ** 2 - error(rounds) ** 2));
	const within = (reach: number) => (reach <= 0 ? 0 : between(-reach, reach, estimate, width));
	return 1 - within(differs) + within(same);
}

/** Chance of a normal value between two ends. */
function between(low: number, high: number, centre: number, width: number): number {
	if (width === 0) return Number(centre > low && centre < high);
	return normalCdf((high - centre) / width) - normalCdf((low - centre) / width);
}

/** The spread of paired differences behind an interval: what would give its width. */
export function spreadBehind(low: number, high: number, rounds: number, intervalAlpha: number): number {
	return ((high - low) / 2 / normalQuantile(1 - intervalAlpha / 2)) * Math.sqrt(rounds * EFFICIENCY);
}

/**
 * The smallest shift that so many rounds see with 80 % power.
 * @param spread standard deviation of the paired differences, in any unit
 * @returns in the same unit
 */
export function visibleShift(rounds: number, spread: number, testAlpha: number): number {
	const critical = normalQuantile(1 - testAlpha / 2) + normalQuantile(POWER);
	return (critical * spread) / Math.sqrt(rounds * EFFICIENCY);
}
