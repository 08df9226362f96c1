/**
 * Paired shifts: the Hodges-Lehmann estimate with exact Wilcoxon signed-rank intervals.
 *
 * Sources: Wilcoxon, "Individual comparisons by ranking methods", 1945; Hodges and Lehmann, "Estimates of location
 * based on rank tests", 1963; Hollander and Wolfe, "Nonparametric Statistical Methods", chapter 3.
 *
 * Zeros and ties. For p, differences of zero are left out (Wilcoxon's rule) and tied sizes share their mean rank; the
 * distribution is then the exact one for these very ranks (every sign equally likely), so p stays exact under ties.
 * For the interval, all differences take part, zeros too, and the rank distribution without ties picks the order
 * statistics of the Walsh averages, which can only widen the interval. Above 50 pairs both use the normal
 * approximation, p with continuity and tie correction.
 */
import { ascending, quantileSorted } from './summary';
import { normalCdf, normalQuantile } from './normal';
import { doubledMidranks, tieSum, type Estimate } from './estimate';

/** Largest number of pairs with the exact distribution. */
export const EXACT_PAIRS = 50;

/** Probabilities of each possible sum of the given whole-number ranks, every sign equally likely. */
function subsetSums(ranks: readonly number[]): Float64Array {
	const total = ranks.reduce((sum, rank) => sum + rank, 0);
	const chance = new Float64Array(total + 1);
	chance[0] = 1;
	let reached = 0;
	for (const rank of ranks) {
		for (let sum = reached; sum >= 0; sum--) {
			const half = chance[sum]! / 2;
			chance[sum] = half;
			// Going downwards, `sum + rank` has already been halved in this round or was still empty.
			chance[sum + rank] = chance[sum + rank]! + half;
		}
		reached += rank;
	}
	return chance;
}

const criticalCache = new Map<string, number>();

/**
 * Largest c with P(W+ <= c) <= alpha / 2 for n pairs without ties; -1 when even W+ = 0 is too likely.
 * @param n pairs, 1 to 50 exact, above by the normal approximation
 */
export function signedRankCritical(n: number, alpha: number): number {
	const key = `${n}/${alpha}`;
	const existing = criticalCache.get(key);
	if (existing !== undefined) return existing;
	let critical = -1;
	if (n > EXACT_PAIRS) {
		const centre = (n * (n + 1)) / 4;
		const spread = Math.sqrt((n * (n + 1) * (2 * n + 1)) / 24);
		critical = Math.max(-1, Math.floor(centre - 0.5 + normalQuantile(alpha / 2) * spread));
	} else if (n > 0) {
		const chance = subsetSums(Array.from({ length: n }, (_, i) => i + 1));
		let below = 0;
		// A hair of slack, so that a level hit exactly (1/32 = 0.03125) is not lost to rounding.
		while (critical + 1 < chance.length && below + chance[critical + 1]! <= (alpha / 2) * (1 + 1e-12))
			below += chance[++critical]!;
	}
	if (criticalCache.size > 2000) criticalCache.clear();
	criticalCache.set(key, critical);
	return critical;
}

/** Two-sided p of the signed-rank test that the differences are symmetric around zero. 1 when all are zero. */
export function signedRankP(differences: readonly number[]): number {
	const kept = differences.filter((difference) => difference !== 0);
	const n = kept.length;
	if (n === 0) return 1;
	const ranks = doubledMidranks(kept.map(Math.abs));
	const positive = ranks.reduce((sum, rank, i) => (kept[i]! > 0 ? sum + rank : sum), 0);
	const total = n * (n + 1); // doubled
	const smaller = Math.min(positive, total - positive);
	if (n > EXACT_PAIRS) {
		const spread = Math.sqrt((n * (n + 1) * (2 * n + 1)) / 24 - tieSum(ranks) / 48);
		const z = (smaller / 2 - total / 4 + 0.5) / spread;
		return Math.min(1, 2 * normalCdf(Math.min(0, z)));
	}
	const chance = subsetSums(ranks);
	let tail = 0;
	for (let sum = 0; sum <= smaller; sum++) tail += chance[sum]!;
	return Math.min(1, 2 * tail);
}

/** The n (n + 1) / 2 means of all pairs of differences, each with itself too, in ascending order. */
export function walshAverages(differences: readonly number[]): number[] {
	const averages = new Float64Array((differences.length * (differences.length + 1)) / 2);
	let at = 0;
	for (let i = 0; i < differences.length; i++)
		for (let j = i; j < differences.length; j++) averages[at++] = (differences[i]! + differences[j]!) / 2;
	return Array.from(averages.sort());
}

/**
 * Shift of paired differences.
 * @param differences one per round, arm minus baseline, in the metric's unit; at least one
 * @param alpha 1 minus the confidence level
 * @throws RangeError for no differences
 */
export function pairedShift(differences: readonly number[], alpha = 0.05): Estimate {
	if (differences.length === 0) throw new RangeError('A paired shift needs at least one pair.');
	const averages = walshAverages(differences);
	const critical = signedRankCritical(differences.length, alpha);
	return {
		estimate: quantileSorted(averages, 0.5),
		low: critical < 0 ? -Infinity : averages[critical]!,
		high: critical < 0 ? Infinity : averages[averages.length - 1 - critical]!,
		p: signedRankP(differences),
		n: differences.length
	};
}

/** Spread of paired differences that a normal sample of the same middle half would have; for power. */
export function pairedSpread(differences: readonly number[]): number {
	const sorted = ascending(differences);
	return (quantileSorted(sorted, 0.75) - quantileSorted(sorted, 0.25)) / 1.3489795003921634;
}
