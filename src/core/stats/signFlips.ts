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

/** How many flips a joint test takes: all of them up to so many rounds, a seeded choice of so many beyond. */
export interface FlipPlan {
	exactRounds: number;
	most: number;
}

export const USUAL_FLIPS: FlipPlan = { exactRounds: EXACT_ROUNDS, most: MOST_FLIPS };
/** For levels below half a per cent: ten thousand flips would leave a handful beyond such a bound. */
export const FINE_FLIPS: FlipPlan = { exactRounds: 18, most: 200_000 };
const FINE_BELOW = 0.005;

export const flipPlanFor = (level: number): FlipPlan => (level < FINE_BELOW ? FINE_FLIPS : USUAL_FLIPS);

/** Rounds whose signs share a byte. */
const GROUP = 8;

/** Flips of whole rounds; the first flip is the data as they are. */
export interface Flips {
	count: number;
	rounds: number;
	/** For eight rounds each, one byte per flip: bit i is set where round i of the group has the other sign. */
	groups: readonly Uint8Array[];
}

const kept = new Map<string, Flips>();
const MOST_KEPT = 24;

/**
 * All flips of so many rounds, or a seeded choice of them. A choice for more rounds begins with that for fewer. A flip
 * of every sign changes no statistic, which is why the first round keeps its sign.
 */
export function flipsOf(rounds: number, seed: number, { exactRounds, most }: FlipPlan = USUAL_FLIPS): Flips {
	const key = rounds <= exactRounds ? `${rounds}` : `${rounds}/${seed}/${most}`;
	let flips = kept.get(key);
	if (!flips) {
		flips = rounds <= exactRounds ? allFlips(rounds) : someFlips(rounds, seed, most);
		if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
		kept.set(key, flips);
	}
	return flips;
}

function allFlips(rounds: number): Flips {
	const count = 2 ** Math.max(0, rounds - 1);
	const groups = unchanged(rounds, count);
	for (let flip = 0; flip < count; flip++)
		groups.forEach((group, g) => (group[flip] = ((flip * 2) >> (g * GROUP)) & 0xff));
	return { count, rounds, groups };
}

function someFlips(rounds: number, seed: number, count: number): Flips {
	const random = seededRandom(seed);
	const groups = unchanged(rounds, count);
	for (let round = 1; round < rounds; round++) {
		const group = groups[Math.floor(round / GROUP)]!;
		const bit = 1 << (round % GROUP);
		for (let flip = 1; flip < count; flip++) if (random() < 0.5) group[flip]! |= bit;
	}
	return { count, rounds, groups };
}

function unchanged(rounds: number, count: number): Uint8Array[] {
	return Array.from({ length: Math.ceil(rounds / GROUP) }, () => new Uint8Array(count));
}

/** Sign of a round under a flip: 1 or -1. */
export function signOf({ groups }: Flips, round: number, flip: number): 1 | -1 {
	return (groups[Math.floor(round / GROUP)]![flip]! >> (round % GROUP)) & 1 ? -1 : 1;
}

/**
 * What each round adds to the statistic of a test: its sign times its rank, in halves of a rank, so that sums are whole
 * numbers. The ranks are midranks of the sizes of the differences that are not zero; a missing round, and a zero, adds
 * nothing.
 * @param differences one per round, null where the test has none
 */
export function signedRanks(differences: readonly (number | null)[]): Int32Array {
	const rounds = differences.flatMap((difference, i) => (difference === null || difference === 0 ? [] : [i]));
	const ranks = doubledMidranks(rounds.map((i) => Math.abs(differences[i]!)));
	const signed = new Int32Array(differences.length);
	rounds.forEach((round, at) => (signed[round] = Math.sign(differences[round]!) * ranks[at]!));
	return signed;
}

/**
 * |sum of sign(d) r| / sqrt(sum of r^2) of each test, as observed and under each flip.
 * @param tests differences by round, at most as many rounds as the flips have
 */
export function flipStatistics(
	tests: readonly (readonly (number | null)[])[],
	flips: Flips,
	spent: number
): LookStatistics {
	const rearranged = tests.map((differences) => statisticsUnder(signedRanks(differences), flips));
	return { observed: Float64Array.from(rearranged, (values) => values[0] ?? 0), rearranged, spent };
}

/** Sums of eight rounds come from a table of all their signs: a flip costs one look-up for eight rounds. */
function statisticsUnder(ranks: Int32Array, { count, groups }: Flips): Float32Array {
	const size = Math.sqrt(ranks.reduce((sum, rank) => sum + rank * rank, 0));
	const sums = new Int32Array(count);
	groups.slice(0, Math.ceil(ranks.length / GROUP)).forEach((group, g) => {
		const table = sumsOfSigns(ranks.subarray(g * GROUP, (g + 1) * GROUP));
		for (let flip = 0; flip < count; flip++) sums[flip]! += table[group[flip]!]!;
	});
	const statistics = new Float32Array(count);
	if (size > 0) for (let flip = 0; flip < count; flip++) statistics[flip] = Math.abs(sums[flip]!) / size;
	return statistics;
}

/** The sum of up to eight ranks under each of 256 choices of signs. */
function sumsOfSigns(ranks: Int32Array): Int32Array {
	const table = new Int32Array(256);
	table[0] = ranks.reduce((sum, rank) => sum + rank, 0);
	for (let signs = 1; signs < 256; signs++) {
		const lowest = 31 - Math.clz32(signs & -signs);
		table[signs] = table[signs & (signs - 1)]! - 2 * (ranks[lowest] ?? 0);
	}
	return table;
}
