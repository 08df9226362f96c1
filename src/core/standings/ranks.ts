/**
 * Ranks with their uncertainty. In each round every page was loaded once, in an order by chance, so that pages are
 * compared round by round. Pairs of pages share a level of 5 %; each is tested jointly over all metrics and devices of
 * which a run tells places (sign flips of whole rounds, step-down maximum: Westfall and Young 1993), as candidates of a
 * trial are: a false order anywhere in it has one chance of 5 %, and so has what is said over several metrics. A page's
 * rank lies between one more than the pages that are surely ahead of it and the number of pages that are
 * not surely behind it (simultaneous intervals for ranks from all pairwise comparisons: Mohamad, Goeman and van Zwet
 * 2022).
 */
import { group } from 'd3-array';
import { isMetricId, marginFor, metricOf, type MetricId } from '../metrics/catalogue';
import type { TimingKey } from '../watch/reading';
import { flipPlanFor, flipsOf, flipStatistics } from '../stats/signFlips';
import { stepDownP } from '../stats/stepDown';
import { pairedShift } from '../stats/signedRank';
import { extentOf, medianOrNull } from '../stats/summary';
import type { MarginInterval } from '../trial/judge/board';

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
	/** The least and the most of the figures; empty without any. */
	ends: number[];
	/** First and last place that it may have, from 1; null for a page without figures, and where no place is told. */
	from: number | null;
	to: number | null;
	/** Rounds with a figure. */
	rounds: number;
	/** From the page with the best middle figure, in margins, 1 worse by one; null for that page. */
	fromBest: MarginInterval | null;
}

export function rankPages(metric: Contest['metric'], contestants: readonly Contestant[], seed = 1): Ranked[] {
	return rankRun([{ metric, contestants, isJudged: true }], seed)[0]!;
}

/** All that a run tells, at one level. @returns in the order of the contests */
export function rankRun(contests: readonly Contest[], seed = 1): Ranked[][] {
	const ahead = ordersOf(contests, seed);
	return contests.map((contest, i) => {
		const { contestants, isJudged } = contest;
		const best = bestOf(contest);
		const present = contestants.filter(isPresent).length;
		return contestants.map(({ page, byRound }): Ranked => {
			const figures = byRound.flatMap((figure) => (figure === null ? [] : [figure]));
			const middle = medianOrNull(figures);
			const fromBest = best ? marginsFrom(contest, best, byRound) : null;
			const known = { page, middle, ends: extentOf(figures), rounds: figures.length, fromBest };
			if (!figures.length || !isJudged) return { ...known, from: null, to: null };
			const before = ahead[i]!.filter(({ behind }) => behind === page).length;
			const after = ahead[i]!.filter((pair) => pair.ahead === page).length;
			return { ...known, from: 1 + before, to: present - after };
		});
	});
}

const figuresOf = ({ byRound }: Pick<Contestant, 'byRound'>) =>
	byRound.flatMap((figure) => (figure === null ? [] : [figure]));

const turnOf = ({ metric }: Contest): 1 | -1 => (isMetricId(metric) && metricOf(metric).higherIsBetter ? -1 : 1);

function bestOf(contest: Contest): Contestant | null {
	const present = contest.contestants.filter(isPresent);
	const size = (contestant: Contestant) => turnOf(contest) * medianOrNull(figuresOf(contestant))!;
	return present.length ? present.reduce((a, b) => (size(b) < size(a) ? b : a)) : null;
}

/** A page's own timings have the margin of the largest paint. */
function marginsFrom(contest: Contest, best: Contestant, byRound: Contestant['byRound']): MarginInterval | null {
	if (byRound === best.byRound) return null;
	const turn = turnOf(contest);
	const differences = byRound.flatMap((figure, round) => {
		const other = best.byRound[round] ?? null;
		return figure === null || other === null ? [] : [turn * (figure - other)];
	});
	if (!differences.length) return null;
	const metric = isMetricId(contest.metric) ? contest.metric : 'lcp';
	const margin = marginFor(metric, medianOrNull(figuresOf(best)) ?? 0);
	const { estimate, low, high } = pairedShift(differences, RANK_LEVEL);
	const inMargins = (value: number) => (Number.isFinite(value) ? value / margin : null);
	return { estimate: estimate / margin, low: inMargins(low), high: inMargins(high) };
}

const isPresent = ({ byRound }: Contestant) => byRound.some((figure) => figure !== null);

interface Order {
	ahead: number;
	behind: number;
}

type TestedPair = ReturnType<typeof pagePairs>[number];

/**
 * Pairs whose order is beyond chance, by contest. Pairs of pages share the level equally; within a pair all contests
 * are tested jointly. A pair that is told apart in all of them hands its share on (Holm 1979).
 */
function ordersOf(contests: readonly Contest[], seed: number): Order[][] {
	const rounds = Math.max(
		0,
		...contests.flatMap(({ contestants }) => contestants.map(({ byRound }) => byRound.length))
	);
	const testedPairs = contests.flatMap((contest, at) => (contest.isJudged ? pagePairs(contest, at, rounds) : []));
	const orders: Order[][] = contests.map(() => []);
	if (!testedPairs.length || rounds < LEAST_ROUNDS) return orders;
	const byPages = [...group(testedPairs, ({ first, second }) => `${first}/${second}`).values()];
	const flips = flipsOf(rounds, seed, flipPlanFor(RANK_LEVEL / byPages.length));
	const families = byPages.map((tests) => ({
		tests,
		p: stepDownP(
			flipStatistics(
				tests.map(({ differences }) => differences),
				flips,
				RANK_LEVEL
			)
		)
	}));
	const level = levelOf(families.map(({ p }) => Math.max(...p)));
	for (const { tests, p } of families)
		tests.forEach((pair, i) => {
			const order = p[i]! <= level ? orderOf(pair) : null;
			if (order) orders[pair.at]!.push(order);
		});
	return orders;
}

/** What each pair may spend once those that are through have handed their shares on. @param largest p of each pair */
function levelOf(largest: readonly number[]): number {
	const sorted = [...largest].sort((a, b) => a - b);
	let left = sorted.length;
	while (left > 1 && sorted[sorted.length - left]! <= RANK_LEVEL / left) left--;
	return RANK_LEVEL / left;
}

function orderOf({ first, second, differences }: TestedPair): Order | null {
	const present = differences.flatMap((difference) => (difference === null ? [] : [difference]));
	if (!present.some((difference) => difference !== 0)) return null;
	const isFirst = pairedShift(present, RANK_LEVEL).estimate > 0;
	return isFirst ? { ahead: first, behind: second } : { ahead: second, behind: first };
}

function pagePairs(contest: Contest, at: number, rounds: number) {
	const { contestants } = contest;
	const turn = turnOf(contest);
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
