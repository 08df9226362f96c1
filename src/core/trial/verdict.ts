/** The one rule by which a shift with its interval becomes a verdict, and what it takes to get one. */
import { metricOf, type MetricId } from '../metrics/catalogue';
import { normalCdf, normalQuantile } from '../stats/normal';
import type { Interval, Verdict } from './types';

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

/** Fewest rounds with which joint sign flips can call anything at a level: the largest statistic has 1 flip in 2^(n-1). */
export function fewestRounds(spent: number): number {
	return Math.ceil(Math.log2(1 / spent)) + 1;
}

/** Nobody waits for more rounds than this; a larger number is told as "more than 200". */
export const MOST_ROUNDS = 200;

/** Asymptotic relative efficiency of the signed-rank test against the t test for normal data: 3 / pi. */
const EFFICIENCY = 3 / Math.PI;
const POWER = 0.8;

/** What is known of an open metric. */
export interface Open {
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
 * Rounds that would probably decide an open metric, in all, with a power of 80 %: by ruling out "no difference" or by
 * bringing the interval inside the margins, whichever is nearer.
 * @returns at least 6; MOST_ROUNDS + 1 stands for any larger number
 */
export function roundsToDecide(open: Open): number {
	const rounds = Math.min(roundsFor(differenceAim(open), POWER), roundsFor(samenessAim(open), POWER));
	return Math.min(MOST_ROUNDS + 1, Math.max(6, Math.ceil(rounds)));
}

/** The chance that an open metric is decided by so many rounds, 0 to 1. */
export function chanceToDecide(open: Open, rounds: number): number {
	return Math.min(1, Math.max(chanceOf(differenceAim(open), rounds), chanceOf(samenessAim(open), rounds)));
}

/** A distance that must come out clear of chance. */
interface Aim {
	distance: number;
	spread: number;
	/** Normal quantile that the distance must reach. */
	critical: number;
	/** Both ends of the interval must stay inside. */
	bothSides: boolean;
}

function differenceAim({ estimate, spread, testAlpha, intervalAlpha }: Open): Aim {
	const critical = Math.max(normalQuantile(1 - testAlpha / 2), normalQuantile(1 - intervalAlpha / 2));
	return { distance: Math.abs(estimate), spread, critical, bothSides: false };
}

function samenessAim({ estimate, margin, spread, intervalAlpha }: Open): Aim {
	return { distance: margin - Math.abs(estimate), spread, critical: normalQuantile(1 - intervalAlpha / 2), bothSides: true };
}

function roundsFor({ distance, spread, critical, bothSides }: Aim, power: number): number {
	if (distance <= 0) return Infinity;
	const reach = normalQuantile(bothSides ? (1 + power) / 2 : power);
	return ((critical + reach) * spread) ** 2 / (distance ** 2 * EFFICIENCY);
}

function chanceOf({ distance, spread, critical, bothSides }: Aim, rounds: number): number {
	if (distance <= 0) return 0;
	if (spread === 0) return 1;
	const reached = normalCdf((distance * Math.sqrt(rounds * EFFICIENCY)) / spread - critical);
	return bothSides ? Math.max(0, 2 * reached - 1) : reached;
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
