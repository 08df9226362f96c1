/**
 * Whole rounds dealt anew between two stages: under no difference it is chance which rounds came before the change, and
 * in which order the others came. All metrics and conditions of a round go together. The exact Mann-Whitney test when
 * there is one of them and one bound.
 */
import { doubledMidranks, tieSum } from './estimate';
import { seededRandom, shuffle } from './random';
import type { Bound, LookStatistics } from './stepDown';

export const MOST_DEALS = 10_000;
/** For levels below half a per cent, as of sign flips. */
const FINE_DEALS = 200_000;

export const dealCountFor = (level: number): number => (level < 0.005 ? FINE_DEALS : MOST_DEALS);

/** Orders in which the rounds may have come: deals x rounds, places in the data; the first is the data as they are. */
export interface Deals {
	rounds: number;
	/** How many of them came before the change. */
	before: number;
	count: number;
	order: Uint16Array;
}

/**
 * All ways to deal `before + after` rounds between the stages, or a seeded choice of orders. Where bounds stand within
 * the second stage the order in it matters, and only a choice is taken.
 */
export function dealsOf(before: number, after: number, seed: number, most = MOST_DEALS, inOrder = false): Deals {
	const rounds = before + after;
	const isAll = !inOrder && waysToChoose(rounds, after) <= most;
	const key = isAll ? `${before}/${rounds}` : `${before}/${rounds}/${seed}/${most}`;
	const existing = kept.get(key);
	if (existing) return existing;
	const order = isAll ? inRows(allDeals(rounds, before), rounds) : someDeals(rounds, seed, most);
	const deals = { rounds, before, count: rounds ? order.length / rounds : 1, order };
	if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
	kept.set(key, deals);
	return deals;
}

/** The comparisons of a trial are dealt alike. */
const kept = new Map<string, Deals>();
const MOST_KEPT = 4;

function inRows(rows: readonly number[][], rounds: number): Uint16Array {
	const order = new Uint16Array(rows.length * rounds);
	rows.forEach((row, i) => order.set(row, i * rounds));
	return order;
}

export function waysToChoose(n: number, k: number): number {
	let ways = 1;
	for (let i = 1; i <= k; i++) ways = (ways * (n - k + i)) / i;
	return Math.round(ways);
}

function allDeals(rounds: number, before: number): number[][] {
	const rows: number[][] = [];
	const first: number[] = [];
	const choose = (from: number): void => {
		if (first.length === before) {
			const taken = new Set(first);
			rows.push([...first, ...Array.from({ length: rounds }, (_, i) => i).filter((i) => !taken.has(i))]);
			return;
		}
		// The first choice keeps the order of the data.
		for (let at = from; at <= rounds - (before - first.length); at++) {
			first.push(at);
			choose(at + 1);
			first.pop();
		}
	};
	choose(0);
	return rows;
}

function someDeals(rounds: number, seed: number, count: number): Uint16Array {
	const random = seededRandom(seed);
	const order = new Uint16Array(count * rounds);
	for (let deal = 0; deal < count; deal++) {
		const row = order.subarray(deal * rounds, (deal + 1) * rounds);
		for (let i = 0; i < rounds; i++) row[i] = i;
		if (deal > 0) shuffle(row, random);
	}
	return order;
}

/**
 * Distance of the Mann-Whitney count from its middle in units of its spread, for each test, after each of some numbers
 * of rounds of the second stage, as observed and under each deal.
 * @param tests values by round, first those before; null where the test has none
 * @param bounds ascending
 */
export function dealStatistics(
	tests: readonly (readonly (number | null)[])[],
	deals: Deals,
	bounds: readonly Bound[]
): LookStatistics[] {
	const all = tests.map((values) => distances(values, deals, bounds));
	return bounds.map(({ spent }, k) => {
		const rearranged = all.map((own) => own[k]!);
		return { observed: Float64Array.from(rearranged, (values) => values[0] ?? 0), rearranged, spent };
	});
}

/** One array for each bound, with one value for each deal. */
function distances(
	values: readonly (number | null)[],
	{ rounds, before, count, order }: Deals,
	bounds: readonly Bound[]
): Float64Array[] {
	if (bounds.length === 1 && bounds[0]!.rounds === rounds - before)
		return [wholeDistances(values, { rounds, before, count, order })];
	const signs = signsOf(values);
	const isKnown = values.map((value) => value !== null);
	const ties = tieFactor(values);
	const found = bounds.map(() => new Float64Array(count));
	for (let deal = 0; deal < count; deal++) {
		const row = order.subarray(deal * rounds, (deal + 1) * rounds);
		let [first, second, sum, next] = [0, 0, 0, 0];
		for (let i = 0; i < before; i++) if (isKnown[row[i]!]) first++;
		for (let at = before; at < rounds && next < bounds.length; at++) {
			const later = row[at]!;
			if (isKnown[later]) {
				second++;
				for (let i = 0; i < before; i++) sum += signs[later * rounds + row[i]!]!;
			}
			if (at - before + 1 === bounds[next]!.rounds) {
				const variance = ((first * second * (first + second + 1)) / 3) * ties;
				found[next]![deal] = variance > 0 ? Math.abs(sum) / Math.sqrt(variance) : 0;
				next++;
			}
		}
	}
	return found;
}

/**
 * Of whole stages alone: a round of the second stage is larger than so many of all others, less those that are larger
 * than it; within the stage that cancels out.
 */
function wholeDistances(values: readonly (number | null)[], { rounds, before, count, order }: Deals): Float64Array {
	const signs = signsOf(values);
	const above = Int32Array.from({ length: rounds }, (_, i) =>
		signs.subarray(i * rounds, (i + 1) * rounds).reduce((sum, sign) => sum + sign, 0)
	);
	const isKnown = Uint8Array.from(values, (value) => Number(value !== null));
	const all = isKnown.reduce((sum, known) => sum + known, 0);
	const ties = tieFactor(values);
	const found = new Float64Array(count);
	for (let deal = 0; deal < count; deal++) {
		const start = deal * rounds;
		let [second, sum] = [0, 0];
		for (let at = start + before; at < start + rounds; at++) {
			second += isKnown[order[at]!]!;
			sum += above[order[at]!]!;
		}
		const variance = (((all - second) * second * (all + 1)) / 3) * ties;
		found[deal] = variance > 0 ? Math.abs(sum) / Math.sqrt(variance) : 0;
	}
	return found;
}

/** 1 where the first of a pair is larger, -1 where the second is, 0 where they are alike or one is missing. */
function signsOf(values: readonly (number | null)[]): Int8Array {
	const signs = new Int8Array(values.length ** 2);
	values.forEach((a, i) =>
		values.forEach((b, j) => {
			if (a !== null && b !== null) signs[i * values.length + j] = Math.sign(a - b);
		})
	);
	return signs;
}

/** By how much ties make the count's variance smaller. */
function tieFactor(values: readonly (number | null)[]): number {
	const present = values.flatMap((value) => (value === null ? [] : [value]));
	const all = present.length ** 3 - present.length;
	return all > 0 ? 1 - tieSum(doubledMidranks(present)) / all : 0;
}
