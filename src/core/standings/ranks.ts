/**
 * Ranks with their uncertainty. In each round every page was loaded once, in an order by chance, so that pages are
 * compared round by round. All pairs are tested jointly (sign flips of whole rounds, step-down maximum: Westfall and
 * Young 1993), over all metrics and devices of which a run tells places: a false order anywhere in it has one chance of
 * 5 %. A page's rank lies between one more than the pages that are surely ahead of it and the number of pages that are
 * not surely behind it (simultaneous intervals for ranks from all pairwise comparisons: Mohamad, Goeman and van Zwet
 * 2022).
 */
import { isMetricId, metricOf, type MetricId } from '../metrics/catalogue';
import type { TimingKey } from '../watch/reading';
import { flipsOf, flipStatistics } from '../stats/signFlips';
import { stepDownP } from '../stats/stepDown';
import { pairedShift } from '../stats/signedRank';
import { medianOrNull } from '../stats/summary';

/** Chance of any false order in what a run tells. */
const RANK_LEVEL = 0.05;
/** Fewer rounds cannot order anything at that level jointly. */
export const LEAST_ROUNDS = 6;

/** Figures of one page by round, from round 1 on; null where a round has none. */
interface Contestant {
	page: number;
	byRound: readonly (number | null)[];
}

/** One metric under one set of conditions. */
export interface Contest {
	/** Whose direction says what is ahead; own timings are better when lower. */
	metric: MetricId | TimingKey;
	contestants: readonly Contestant[];
	/** Whether the run tells places of it. */
	isJudged: boolean;
}

export interface Ranked {
	page: number;
	/** Middle figure; null where nothing was measured. */
	middle: number | null;
	/** First and last place that it may have, from 1; null for a page without figures, and where no place is told. */
	from: number | null;
	to: number | null;
	/** Rounds with a figure. */
	rounds: number;
}

export function rankPages(metric: Contest['metric'], contestants: readonly Contestant[], seed = 1): Ranked[] {
	return rankRun([{ metric, contestants, isJudged: true }], seed)[0]!;
}

/** All that a run tells, at one level. @returns in the order of the contests */
export function rankRun(contests: readonly Contest[], seed = 1): Ranked[][] {
	const ahead = ordersOf(contests, seed);
	return contests.map(({ contestants, isJudged }, i) => {
		const present = contestants.filter(isPresent).length;
		return contestants.map(({ page, byRound }): Ranked => {
			const figures = byRound.flatMap((figure) => (figure === null ? [] : [figure]));
			const middle = medianOrNull(figures);
			if (!figures.length || !isJudged) return { page, middle, from: null, to: null, rounds: figures.length };
			const before = ahead[i]!.filter(({ behind }) => behind === page).length;
			const after = ahead[i]!.filter((pair) => pair.ahead === page).length;
			return { page, middle, from: 1 + before, to: present - after, rounds: figures.length };
		});
	});
}

const isPresent = ({ byRound }: Contestant) => byRound.some((figure) => figure !== null);

interface Order {
	ahead: number;
	behind: number;
}

/** Pairs whose order is beyond chance, by contest; all pairs of all of them tested together. */
function ordersOf(contests: readonly Contest[], seed: number): Order[][] {
	const rounds = Math.max(
		0,
		...contests.flatMap(({ contestants }) => contestants.map(({ byRound }) => byRound.length))
	);
	const testedPairs = contests.flatMap((contest, at) => (contest.isJudged ? pairsOf(contest, at, rounds) : []));
	const orders: Order[][] = contests.map(() => []);
	if (!testedPairs.length || rounds < LEAST_ROUNDS) return orders;
	const differences = testedPairs.map((pair) => pair.differences);
	const p = stepDownP(flipStatistics(differences, flipsOf(rounds, seed), RANK_LEVEL));
	testedPairs.forEach(({ at, first, second, differences: own }, i) => {
		const present = own.flatMap((difference) => (difference === null ? [] : [difference]));
		// At least one difference, and the joint p of this pair below the level.
		if (!present.some((difference) => difference !== 0) || p[i]! > RANK_LEVEL) return;
		const isFirst = pairedShift(present, RANK_LEVEL).estimate > 0;
		orders[at]!.push(isFirst ? { ahead: first, behind: second } : { ahead: second, behind: first });
	});
	return orders;
}

function pairsOf({ metric, contestants }: Contest, at: number, rounds: number) {
	const turn = isMetricId(metric) && metricOf(metric).higherIsBetter ? -1 : 1;
	const present = contestants.filter(isPresent);
	return present.flatMap((first, i) =>
		present.slice(i + 1).map((second) => ({
			at,
			first: first.page,
			second: second.page,
			differences: Array.from({ length: rounds }, (_, round) => {
				const [a, b] = [first.byRound[round] ?? null, second.byRound[round] ?? null];
				return a === null || b === null ? null : turn * (b - a);
			})
		}))
	);
}
