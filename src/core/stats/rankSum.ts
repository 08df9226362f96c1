/**
 * Shifts between two samples that are not paired: Hodges-Lehmann with Mann-Whitney intervals.
 *
 * Sources: Mann and Whitney, 1947; Hodges and Lehmann, 1963; Hollander and Wolfe, chapter 4. With ties, p comes from
 * the exact permutation distribution of the shared ranks (up to 60 values in all), else from the normal
 * approximation with continuity and tie correction; the interval's order statistics come from the distribution
 * without ties, which can only widen it.
 */
import { quantileSorted } from './summary';
import { normalCdf, normalQuantile } from './normal';
import { doubledMidranks, tieSum, type Estimate } from './estimate';

/** Largest number of values in both samples with the exact permutation distribution. */
export const EXACT_VALUES = 60;

/**
 * Probabilities of each doubled rank sum of a subset of `size` of the given doubled ranks, every subset equally
 * likely.
 */
function subsetRankSums(ranks: readonly number[], size: number): Float64Array {
	const total = ranks.reduce((sum, rank) => sum + rank, 0);
	const ways = Array.from({ length: size + 1 }, () => new Float64Array(total + 1));
	ways[0]![0] = 1;
	let seen = 0;
	for (const rank of ranks) {
		seen++;
		for (let k = Math.min(size, seen); k >= 1; k--) {
			const from = ways[k - 1]!;
			const into = ways[k]!;
			for (let sum = total; sum >= rank; sum--) into[sum] = into[sum]! + from[sum - rank]!;
		}
	}
	const all = ways[size]!;
	const count = all.reduce((sum, way) => sum + way, 0);
	return all.map((way) => way / count);
}

/** Probabilities of Mann-Whitney U = 0 .. n m without ties. */
function uDistribution(n: number, m: number): Float64Array {
	// The Gaussian binomial coefficient: multiply by (1 - q^(m+i)) and divide by (1 - q^i) for i = 1 .. n.
	const top = n * m;
	const ways = new Float64Array(top + 1);
	ways[0] = 1;
	for (let i = 1; i <= n; i++) {
		for (let u = top; u >= m + i; u--) ways[u] = ways[u]! - ways[u - m - i]!;
		for (let u = i; u <= top; u++) ways[u] = ways[u]! + ways[u - i]!;
	}
	const count = ways.reduce((sum, way) => sum + way, 0);
	return ways.map((way) => way / count);
}

/** Largest c with P(U <= c) <= alpha / 2 for samples of n and m without ties; -1 when even U = 0 is too likely. */
export function rankSumCritical(n: number, m: number, alpha: number): number {
	if (n + m > EXACT_VALUES) {
		const spread = Math.sqrt((n * m * (n + m + 1)) / 12);
		return Math.max(-1, Math.floor((n * m) / 2 - 0.5 + normalQuantile(alpha / 2) * spread));
	}
	const chance = uDistribution(n, m);
	let critical = -1;
	let below = 0;
	while (critical + 1 < chance.length && below + chance[critical + 1]! <= (alpha / 2) * (1 + 1e-12))
		below += chance[++critical]!;
	return critical;
}

/** Two-sided p of the rank-sum test that both samples come from one distribution. */
export function rankSumP(first: readonly number[], second: readonly number[]): number {
	const n = first.length;
	const m = second.length;
	const ranks = doubledMidranks([...first, ...second]);
	const observed = ranks.slice(0, n).reduce((sum, rank) => sum + rank, 0);
	const expected = n * (n + m + 1); // doubled
	if (n + m > EXACT_VALUES) {
		const all = n + m;
		const variance = ((n * m) / 12) * (all + 1 - tieSum(ranks) / (all * (all - 1)));
		if (variance <= 0) return 1;
		const z = (Math.abs(observed - expected) / 2 - 0.5) / Math.sqrt(variance);
		return Math.min(1, 2 * normalCdf(-Math.max(0, z)));
	}
	const chance = subsetRankSums(ranks, n);
	const distance = Math.abs(observed - expected);
	let tail = 0;
	chance.forEach((share, sum) => {
		if (Math.abs(sum - expected) >= distance - 1e-9) tail += share;
	});
	return Math.min(1, tail);
}

/**
 * Shift of the second sample from the first.
 * @param first values of the baseline @param second values of the arm, same unit; each at least one value
 * @throws RangeError for an empty sample
 */
export function twoSampleShift(first: readonly number[], second: readonly number[], alpha = 0.05): Estimate {
	if (!first.length || !second.length) throw new RangeError('A shift between two samples needs values in both.');
	const differences = new Float64Array(first.length * second.length);
	let at = 0;
	for (const before of first) for (const after of second) differences[at++] = after - before;
	const sorted = Array.from(differences.sort());
	const critical = rankSumCritical(first.length, second.length, alpha);
	return {
		estimate: quantileSorted(sorted, 0.5),
		low: critical < 0 ? -Infinity : sorted[critical]!,
		high: critical < 0 ? Infinity : sorted[sorted.length - 1 - critical]!,
		p: rankSumP(first, second),
		n: first.length + second.length
	};
}

/** The Hodges-Lehmann estimate of two samples alone, without the interval. */
export function hodgesLehmann(first: readonly number[], second: readonly number[]): number {
	const differences: number[] = [];
	for (const before of first) for (const after of second) differences.push(after - before);
	return quantileSorted(
		differences.sort((a, b) => a - b),
		0.5
	);
}
