/**
 * Ranks with their uncertainty. In each round every page was loaded once, in an order by chance, so that pages are
 * compared round by round. All pairs are tested jointly (sign flips of whole rounds, step-down maximum: Westfall and
 * Young 1993); a page's rank lies between one more than the pages that are surely ahead of it and the number of pages
 * that are not surely behind it (simultaneous intervals for ranks from all pairwise comparisons: Mohamad, Goeman and
 * van Zwet 2022).
 */
import { isMetricId, metricOf, type MetricId } from '../metrics/catalogue';
import type { TimingKey } from '../watch/reading';
import { flipsOf, flipStatistics } from '../stats/signFlips';
import { stepDownP } from '../stats/stepDown';
import { pairedShift } from '../stats/signedRank';
import { medianOrNull } from '../stats/summary';

/** Chance of any false order among all pairs of one metric. */
const RANK_LEVEL = 0.05;
/** Fewer rounds cannot order anything at that level jointly. */
export const LEAST_ROUNDS = 6;

/** Figures of one page by round, from round 1 on; null where a round has none. */
interface Contestant {
	page: number;
	byRound: readonly (number | null)[];
}

export interface Ranked {
	page: number;
	/** Middle figure; null where nothing was measured. */
	middle: number | null;
	/** First and last place that it may have, from 1; null for a page without figures. */
	from: number | null;
	to: number | null;
	/** Rounds with a figure. */
	rounds: number;
}

/** @param metric whose direction says what is ahead; own timings are better when lower */
export function rankPages(metric: MetricId | TimingKey, contestants: readonly Contestant[], seed = 1): Ranked[] {
	const turn = isMetricId(metric) && metricOf(metric).higherIsBetter ? -1 : 1;
	const present = contestants.filter(({ byRound }) => byRound.some((figure) => figure !== null));
	const ahead = pairsAhead(present, turn, seed);
	return contestants.map(({ page, byRound }) => {
		const known = byRound.flatMap((figure) => (figure === null ? [] : [figure]));
		if (!known.length) return { page, middle: null, from: null, to: null, rounds: 0 };
		const before = ahead.filter(({ behind }) => behind === page).length;
		const after = ahead.filter((pair) => pair.ahead === page).length;
		return { page, middle: medianOrNull(known), from: 1 + before, to: present.length - after, rounds: known.length };
	});
}

/** Pairs whose order is beyond chance, all pairs together. */
function pairsAhead(pages: readonly Contestant[], turn: 1 | -1, seed: number): { ahead: number; behind: number }[] {
	const pairs = pages.flatMap((first, i) => pages.slice(i + 1).map((second) => ({ first, second })));
	const rounds = Math.max(0, ...pages.map(({ byRound }) => byRound.length));
	if (!pairs.length || rounds < LEAST_ROUNDS) return [];
	const differences = pairs.map(({ first, second }) =>
		Array.from({ length: rounds }, (_, round) => {
			const [a, b] = [first.byRound[round] ?? null, second.byRound[round] ?? null];
			return a === null || b === null ? null : turn * (b - a);
		})
	);
	const p = stepDownP(flipStatistics(differences, flipsOf(rounds, seed), RANK_LEVEL));
	return pairs.flatMap(({ first, second }, i) => {
		const known = differences[i]!.flatMap((difference) => (difference === null ? [] : [difference]));
		// At least one difference, and the joint p of this pair below the level.
		if (!known.some((difference) => difference !== 0) || p[i]! > RANK_LEVEL) return [];
		const { estimate } = pairedShift(known, RANK_LEVEL);
		return [estimate > 0 ? { ahead: first.page, behind: second.page } : { ahead: second.page, behind: first.page }];
	});
}
