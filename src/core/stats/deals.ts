/**
 * Whole rounds dealt anew between two stages: under no difference it is chance which rounds came before the change. All
 * metrics and conditions of a round go together. The exact Mann-Whitney test when there is one of them.
 */
import { doubledMidranks } from './estimate';
import { seededRandom } from './random';
import type { LookStatistics } from './stepDown';

export const MOST_DEALS = 10_000;

/** Which rounds belong to the second stage: deals x rounds, 1 or 0; the first row is the data as they are. */
export interface Deals {
	rounds: number;
	count: number;
	second: Uint8Array;
}

/** All ways to deal `before + after` rounds, or a seeded choice of them; the first `before` rounds came first. */
export function dealsOf(before: number, after: number, seed: number, most = MOST_DEALS): Deals {
	const rounds = before + after;
	const observed = Uint8Array.from({ length: rounds }, (_, i) => Number(i >= before));
	const rows =
		waysToChoose(rounds, after) <= most ? allDeals(rounds, after, observed) : someDeals(observed, seed, most);
	const second = new Uint8Array(rows.length * rounds);
	rows.forEach((row, i) => second.set(row, i * rounds));
	return { rounds, count: rows.length, second };
}

function waysToChoose(n: number, k: number): number {
	let ways = 1;
	for (let i = 1; i <= k; i++) ways = (ways * (n - k + i)) / i;
	return Math.round(ways);
}

function allDeals(rounds: number, after: number, observed: Uint8Array): Uint8Array[] {
	const rows: Uint8Array[] = [observed];
	const row = new Uint8Array(rounds);
	const choose = (from: number, missing: number): void => {
		if (missing === 0) {
			if (row.some((one, i) => one !== observed[i])) rows.push(row.slice());
			return;
		}
		for (let at = from; at <= rounds - missing; at++) {
			row[at] = 1;
			choose(at + 1, missing - 1);
			row[at] = 0;
		}
	};
	choose(0, after);
	return rows;
}

function someDeals(observed: Uint8Array, seed: number, count: number): Uint8Array[] {
	const random = seededRandom(seed);
	const rows = [observed];
	while (rows.length < count) {
		const row = observed.slice();
		for (let i = row.length - 1; i > 0; i--) {
			const j = Math.floor(random() * (i + 1));
			[row[i], row[j]] = [row[j]!, row[i]!];
		}
		rows.push(row);
	}
	return rows;
}

/**
 * Distance of the mean ranks of both stages in units of its spread, for each test, as observed and under each deal.
 * @param tests values by round, first those before; null where the test has none
 */
export function dealStatistics(
	tests: readonly (readonly (number | null)[])[],
	deals: Deals,
	spent: number
): LookStatistics {
	const rearranged = tests.map((values) => {
		const scores = centredRanks(values);
		return Float64Array.from({ length: deals.count }, (_, deal) => distance(scores, deals, deal));
	});
	return { observed: Float64Array.from(rearranged, (values) => values[0] ?? 0), rearranged, spent };
}

/** Midranks less their mean over their root mean square; NaN where there is no value. */
function centredRanks(values: readonly (number | null)[]): Float64Array {
	const places = values.flatMap((value, i) => (value === null ? [] : [i]));
	const ranks = doubledMidranks(places.map((i) => values[i]!));
	const mean = ranks.reduce((sum, rank) => sum + rank, 0) / ranks.length;
	const size = Math.sqrt(ranks.reduce((sum, rank) => sum + (rank - mean) ** 2, 0) / ranks.length);
	const scores = new Float64Array(values.length).fill(NaN);
	places.forEach((i, at) => (scores[i] = size > 0 ? (ranks[at]! - mean) / size : 0));
	return scores;
}

function distance(scores: Float64Array, { rounds, second }: Deals, deal: number): number {
	const sums = [0, 0];
	const counts = [0, 0];
	for (let round = 0; round < rounds; round++) {
		const score = scores[round]!;
		if (Number.isNaN(score)) continue;
		const stage = second[deal * rounds + round]!;
		sums[stage]! += score;
		counts[stage]!++;
	}
	const [before, after] = counts as [number, number];
	if (!before || !after) return 0;
	return Math.abs(sums[1]! / after - sums[0]! / before) / Math.sqrt(1 / before + 1 / after);
}
