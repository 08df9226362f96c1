/**
 * Sign flips of whole rounds. Under no difference the arms of a round are exchangeable: flipping all differences of a
 * round together changes nothing, and keeps what metrics, arms and conditions have in common.
 */
import { doubledMidranks } from './estimate';
import { seededRandom } from './random';
import type { LookStatistics } from './stepDown';

/** Up to so many rounds all flips are taken. */
export const EXACT_ROUNDS = 12;
export const MOST_FLIPS = 10_000;

/** Flips of whole rounds; the first flip is the data as they are. */
export interface Flips {
	count: number;
	/** For each round one sign (1 or -1) per flip. */
	signs: readonly Float64Array[];
}

const kept = new Map<string, Flips>();
const MOST_KEPT = 24;

/**
 * All flips of so many rounds, or a seeded choice of them. A choice for more rounds begins with that for fewer. A flip
 * of every sign changes no statistic, which is why the first round keeps its sign.
 */
export function flipsOf(rounds: number, seed: number, most = MOST_FLIPS): Flips {
	const key = rounds <= EXACT_ROUNDS ? `${rounds}` : `${rounds}/${seed}/${most}`;
	let flips = kept.get(key);
	if (!flips) {
		flips = rounds <= EXACT_ROUNDS ? allFlips(rounds) : someFlips(rounds, seed, most);
		if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
		kept.set(key, flips);
	}
	return flips;
}

function allFlips(rounds: number): Flips {
	const count = 2 ** Math.max(0, rounds - 1);
	const signs = unchanged(rounds, count);
	for (let round = 1; round < rounds; round++)
		for (let flip = 0; flip < count; flip++) if ((flip >> (round - 1)) & 1) signs[round]![flip] = -1;
	return { count, signs };
}

function someFlips(rounds: number, seed: number, count: number): Flips {
	const random = seededRandom(seed);
	const signs = unchanged(rounds, count);
	for (let round = 1; round < rounds; round++)
		for (let flip = 1; flip < count; flip++) if (random() < 0.5) signs[round]![flip] = -1;
	return { count, signs };
}

function unchanged(rounds: number, count: number): Float64Array[] {
	return Array.from({ length: rounds }, () => new Float64Array(count).fill(1));
}

/**
 * What each round adds to the statistic of a test: its sign times its rank, over the root of the sum of squared ranks.
 * The ranks are midranks of the sizes of the differences that are not zero; a missing round, and a zero, adds nothing.
 * @param differences one per round, null where the test has none
 */
export function roundWeights(differences: readonly (number | null)[]): Float64Array {
	const places = differences.flatMap((difference, i) => (difference === null || difference === 0 ? [] : [i]));
	const ranks = doubledMidranks(places.map((i) => Math.abs(differences[i]!)));
	const size = Math.sqrt(ranks.reduce((sum, rank) => sum + rank * rank, 0));
	const weights = new Float64Array(differences.length);
	places.forEach((i, at) => (weights[i] = (Math.sign(differences[i]!) * ranks[at]!) / size));
	return weights;
}

/**
 * |sum of sign(d) r| / sqrt(sum of r^2) of each test, as observed and under each flip.
 * @param tests differences by round, at most as many rounds as the flips have
 */
export function flipStatistics(
	tests: readonly (readonly (number | null)[])[],
	{ count, signs }: Flips,
	spent: number
): LookStatistics {
	const rearranged = tests.map((differences) => {
		const sums = new Float64Array(count);
		roundWeights(differences).forEach((weight, round) => {
			if (weight === 0) return;
			const flips = signs[round]!;
			for (let flip = 0; flip < count; flip++) sums[flip]! += flips[flip]! * weight;
		});
		for (let flip = 0; flip < count; flip++) sums[flip] = Math.abs(sums[flip]!);
		return sums;
	});
	return { observed: Float64Array.from(rearranged, (values) => values[0] ?? 0), rearranged, spent };
}
