/**
 * Several tests at once, perhaps looked at several times: step-down maximum over rearrangements of the data.
 *
 * Source: Westfall and Young, "Resampling-Based Multiple Testing", 1993, algorithm 2.8 (step-down maxT). Looks: Lan and
 * DeMets, "Discrete sequential boundaries for clinical trials", Biometrika 1983, with the rearrangements themselves in
 * place of the normal process, so that what is spent is kept exactly.
 */
import { quickselect } from 'd3-array';

/** Statistics of all tests at one look: as observed, and under each rearrangement. */
export interface LookStatistics {
	/** One per test; larger speaks more against "no difference". */
	observed: Float64Array;
	/** For each test one value per rearrangement; the first is the data as they are. */
	rearranged: readonly (Float32Array | Float64Array)[];
	/** Chance of any false call that may have been spent by this look, 0 to 1; never falls from look to look. */
	spent: number;
}

/** A moment at which a test may have been called, whether or not anybody looked: after so many rounds. */
export interface Bound {
	rounds: number;
	/** Chance of any false call that may have been spent by then, 0 to 1; never falls from bound to bound. */
	spent: number;
}

/** Two statistics that differ by less come from the same ranks. */
const SLACK = 1e-9;

/**
 * Which tests are called by the last look.
 * @param looks in order; rearrangement b must be the same one at every look (a longer one begins with the shorter)
 * @param open tests that take part; those called earlier are left out
 * @returns indices of the tests that are called now
 */
export function stepDownCalls(looks: readonly LookStatistics[], open: readonly number[]): number[] {
	const called: number[] = [];
	let left = [...open];
	while (left.length) {
		const bounds = boundsFor(looks, left);
		const now = left.filter((test) => looks.some(({ observed }, k) => observed[test]! > bounds[k]! + SLACK));
		if (!now.length) break;
		called.push(...now);
		left = left.filter((test) => !now.includes(test));
	}
	return called;
}

/**
 * The bound of each look for the maximum over some tests: so many rearrangements lie beyond one of them as may be
 * spent by then, and no more.
 */
function boundsFor(looks: readonly LookStatistics[], tests: readonly number[]): number[] {
	const count = rearrangementsOf(looks[0]!);
	const crossed = new Uint8Array(count);
	let spent = 0;
	return looks.map((look) => {
		const maxima = maximaOf(look, tests);
		const allowed = Math.max(0, Math.floor(look.spent * count + SLACK) - spent);
		const bound = largestBut(
			allowed,
			maxima.filter((_, b) => !crossed[b])
		);
		for (let b = 0; b < count; b++)
			if (!crossed[b] && maxima[b]! > bound + SLACK) {
				crossed[b] = 1;
				spent++;
			}
		return bound;
	});
}

/** The value that so many others exceed. */
function largestBut(others: number, values: Float64Array): number {
	const place = values.length - 1 - others;
	if (place < 0) return -Infinity;
	return quickselect(values, place)[place]!;
}

/**
 * Adjusted p values at one look, alone: the smallest level at which each test would be called.
 * @returns in the order of the tests
 */
export function stepDownP(look: LookStatistics): number[] {
	const { observed, rearranged } = look;
	const tests = observed.length;
	const count = rearrangementsOf(look);
	const order = Array.from(observed.keys()).sort((a, b) => observed[b]! - observed[a]!);
	const beyond = new Float64Array(tests);
	for (let b = 0; b < count; b++) {
		let maximum = 0;
		for (let place = tests - 1; place >= 0; place--) {
			const test = order[place]!;
			maximum = Math.max(maximum, rearranged[test]![b]!);
			if (maximum >= observed[test]! - SLACK) beyond[test]!++;
		}
	}
	const p = new Array<number>(tests);
	let reached = 0;
	for (const test of order) p[test] = reached = Math.max(reached, beyond[test]! / count);
	return p;
}

function rearrangementsOf({ rearranged }: LookStatistics): number {
	return rearranged[0]?.length ?? 0;
}

function maximaOf(look: LookStatistics, tests: readonly number[]): Float64Array {
	const maxima = new Float64Array(rearrangementsOf(look));
	for (const test of tests) {
		const values = look.rearranged[test]!;
		for (let b = 0; b < maxima.length; b++) if (values[b]! > maxima[b]!) maxima[b] = values[b]!;
	}
	return maxima;
}
