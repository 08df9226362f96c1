/**
 * Whether a figure stepped between two readings.
 *
 * Loads of one reading share its hour, so that the reading is the unit: its middle has the variance of its loads
 * divided by their number, and that by which readings differ among themselves (a random-effects model, Cochran 1937;
 * the share of the second is pooled over all that is watched, since one page shows too little of it). Two conditions
 * must hold: the step stands out of that variance at a level that is divided among all that is watched, and an exact
 * rank-sum test of the readings' middles (Mann and Whitney 1947) rules chance out at 5 %. The exact test alone could
 * never decide: 2 readings after 12 can be dealt in 91 ways, so that its smallest p is 0.022, however many pages are
 * watched.
 */
import { rankSumP } from '../stats/rankSum';
import { normalQuantile } from '../stats/normal';
import type { Block } from './block';

export interface Step {
	/** After minus before, in the metric's unit. */
	size: number;
	/** Standard error of the size. */
	error: number;
	/** Size in standard errors, without its sign; Infinity where nothing scatters and it moved nevertheless. */
	z: number;
}

/** Pooled variance of single loads within their readings. */
export function varianceWithin(blocks: readonly Block[]): number {
	const freedom = blocks.reduce((sum, { loads }) => sum + loads - 1, 0);
	const squares = blocks.reduce((sum, { loads, variance }) => sum + variance * (loads - 1), 0);
	return freedom > 0 ? squares / freedom : 0;
}

/** @param between how readings differ among themselves, as a share of the variance of single loads */
export function stepOf(before: readonly Block[], after: readonly Block[], between: number): Step {
	const within = varianceWithin([...before, ...after]);
	const [from, to] = [before, after].map((side) => weightedMean(side, within, between)) as [Weighted, Weighted];
	const size = to.mean - from.mean;
	const error = Math.sqrt(from.variance + to.variance);
	return { size, error, z: size === 0 ? 0 : Math.abs(size) / error };
}

interface Weighted {
	mean: number;
	variance: number;
}

/** Readings with more loads count for more, as far as it is loads that scatter. */
function weightedMean(blocks: readonly Block[], within: number, between: number): Weighted {
	const variances = blocks.map(({ loads, added = 0 }) => within * (between + 1 / loads) + added);
	if (variances.some((variance) => variance === 0))
		return { mean: blocks.reduce((sum, { middle }) => sum + middle, 0) / blocks.length, variance: 0 };
	const total = variances.reduce((sum, variance) => sum + 1 / variance, 0);
	const mean = blocks.reduce((sum, { middle }, i) => sum + middle / variances[i]!, 0) / total;
	return { mean, variance: 1 / total };
}

/**
 * How readings differ among themselves, as a share of the variance of single loads: by the method of moments
 * (DerSimonian and Laird 1986, for readings of unequal numbers), pooled over all that is watched.
 * @param series readings of each figure without a step in them
 */
export function varianceBetween(series: readonly (readonly Block[])[]): number {
	let excess = 0;
	let weight = 0;
	for (const blocks of series) {
		const within = varianceWithin(blocks);
		if (within === 0 || blocks.length < 3) continue;
		const inverse = blocks.map(({ loads, added = 0 }) => within / (within / loads + added));
		const total = inverse.reduce((sum, one) => sum + one, 0);
		const mean = blocks.reduce((sum, { middle }, i) => sum + middle * inverse[i]!, 0) / total;
		const spread = blocks.reduce((sum, { middle }, i) => sum + inverse[i]! * (middle - mean) ** 2, 0);
		excess += spread / within - (blocks.length - 1);
		weight += total - inverse.reduce((sum, one) => sum + one ** 2, 0) / total;
	}
	return weight > 0 ? Math.max(0, excess / weight) : 0;
}

/** Two-sided level of the exact test of the readings' middles. */
const BLOCK_LEVEL = 0.05;

export function middlesDiffer(before: readonly Block[], after: readonly Block[]): boolean {
	const middles = (side: readonly Block[]) => side.map(({ middle }) => middle);
	return rankSumP(middles(before), middles(after)) <= BLOCK_LEVEL;
}

/** Beyond how many standard errors a step is called when so many tests share a chance of any false call. */
export function criticalZ(level: number, tests: number): number {
	return normalQuantile(1 - level / (2 * Math.max(1, tests)));
}
