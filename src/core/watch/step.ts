/**
 * Whether a figure stepped between two readings. Four conditions must hold together, each against another way of being
 * wrong (simulated in `bench/watch`):
 *
 * - The step stands out of what loads and readings scatter, at a level that all that is watched shares over a quarter.
 * - It still does when any one reading after it is left out, and no reading after it lies far from the others: a single
 *   bad week is no change.
 * - An exact rank-sum test of the readings' middles (Mann and Whitney 1947) rules chance out at 5 %, or, where so few
 *   readings can't (2 after 5 can be dealt in 21 ways: smallest p 0.095), all readings after lie beyond all before.
 * - It doesn't fall on an update of the lab: whose doing it was could not be told.
 */
import { rankSumP } from '../stats/rankSum';
import { normalQuantile } from '../stats/normal';
import { studentQuantile } from '../stats/student';
import type { Block } from './block';
import { levelAtEnd, levelAtStart, type Level, type Point } from './level';

export interface Step {
	/** After minus before, in the metric's unit. */
	size: number;
	/** Standard error of the size. */
	error: number;
	/** Size in standard errors, with its sign; infinite where nothing scatters and it moved nevertheless. */
	z: number;
}

/** Pooled variance of single loads within their readings. */
export function varianceWithin(blocks: readonly Block[]): number {
	const freedom = blocks.reduce((sum, { loads }) => sum + loads - 1, 0);
	const squares = blocks.reduce((sum, { loads, variance }) => sum + variance * (loads - 1), 0);
	return freedom > 0 ? squares / freedom : 0;
}

/** @param before, after oldest first; both sides need one at least */
export function stepOf(before: readonly Point[], after: readonly Point[]): Step {
	const [from, to] = [levelAtEnd(before)!, levelAtStart(after)!];
	return difference({ ...from, variance: from.variance + after[0]!.moved }, to);
}

export function difference(from: Level, to: Level): Step {
	const size = to.value - from.value;
	const error = Math.sqrt(from.variance + to.variance);
	return { size, error, z: size === 0 ? 0 : size / error };
}

/** The smallest step that is left, in the direction of the whole, when one reading after it is left out. */
export function leastWithoutOne(before: readonly Point[], after: readonly Point[]): number {
	const sign = Math.sign(stepOf(before, after).size);
	return Math.min(
		...after.map((_, left) => {
			const rest = after.flatMap((point, i) => {
				if (i === left) return [];
				// What the lab did between two readings stays when one of them is left out.
				return [{ ...point, moved: point.moved + (i === left + 1 ? after[left]!.moved : 0) }];
			});
			return sign * stepOf(before, rest).z;
		})
	);
}

/** Two-sided level of the exact test of the readings' middles. */
const BLOCK_LEVEL = 0.05;

/** The middles are dealt beyond chance, or as far apart as so few of them can be. */
export function middlesDiffer(before: readonly number[], after: readonly number[]): boolean {
	const isApart = Math.max(...before) < Math.min(...after) || Math.max(...after) < Math.min(...before);
	return isApart || rankSumP(before, after) <= BLOCK_LEVEL;
}

const MOST_FREEDOM = 200;
const criticals = new Map<string, number>();

/**
 * Beyond how many standard errors a step stands out when so many tests share a chance of any false call.
 * @param freedom readings behind the standard error; as good as known from some on
 */
export function criticalZ(level: number, tests: number, freedom = Infinity): number {
	const whole = Math.max(1, Math.floor(Math.min(freedom, MOST_FREEDOM)));
	const key = `${level}/${tests}/${whole}`;
	let critical = criticals.get(key);
	if (critical === undefined) {
		const p = 1 - level / (2 * Math.max(1, tests));
		critical = whole === MOST_FREEDOM ? normalQuantile(p) : studentQuantile(p, whole);
		criticals.set(key, critical);
	}
	return critical;
}
