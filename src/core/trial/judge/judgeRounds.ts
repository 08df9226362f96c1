/** Judging interleaved arms: paired differences by round, joint sign flips, look after look. */
import { group } from 'd3-array';
import { asksForBest, hasPages } from '../design/kinds';
import { metricOf, type MetricId } from '../../metrics/catalogue';
import { EXACT_ROUNDS, flipPlanFor, flipStatistics, flipsOf, MOST_FLIPS } from '../../stats/signFlips';
import { pairedShift, pairedSpread } from '../../stats/signedRank';
import { stepDownCalls, stepDownP, type LookStatistics } from '../../stats/stepDown';
import { mean } from '../../stats/summary';
import { ALL_PAGES, judgedPairs, type Comparison } from '../design/comparisons';
import { boundsOf, intervalAlpha, PLAN_SPENDS, plannedRounds } from '../design/looks';
import {
	blankResult,
	marginOf,
	medianOf,
	notMeasured,
	ratioMakesSense,
	shiftOf,
	type Measure,
	type Measured
} from './measures';
import { metricsOf } from '../design/metricsOf';
import { failureReason, present, type ByRound, type Samples } from './samples';
import type { Look, ShiftResult, TrialDesign } from '../types';
import { chanceToDecide, decide, roundsToDecide, spreadBehind, type Open } from './verdict';

/** One result per conditions, metric and comparison, in that order; a sweep has one more for all its pages. */
export function measuresOf(design: TrialDesign, samples: Samples): Measure[] {
	const comparisons = judgedPairs(design);
	const pooled = hasPages(design.kind) && comparisons.length > 1;
	return design.conditions.flatMap(({ id: condition }) =>
		metricsOf(design).flatMap(({ id: metric }) => {
			const each = comparisons.map((comparison) => measureOf(design, { samples, condition, metric, comparison }));
			return pooled ? [...each, allPages(design, { condition, metric, pages: each, comparisons })] : each;
		})
	);
}

function measureOf(
	design: TrialDesign,
	{
		samples,
		condition,
		metric,
		comparison: { baseline, arm }
	}: { samples: Samples; condition: string; metric: MetricId; comparison: Comparison }
): Measure {
	return {
		condition,
		metric,
		baselineId: baseline.id,
		armId: arm.id,
		primary: design.primary.includes(metric),
		at(rounds) {
			const before = samples.byRound({ condition, armId: baseline.id }, metric, rounds);
			const after = samples.byRound({ condition, armId: arm.id }, metric, rounds);
			const tested = before.map((figure, i) => (figure === null || after[i] === null ? null : after[i]! - figure));
			const baselineMedian = medianOf(before);
			const armMedian = medianOf(after);
			const failed = failureReason(samples, condition, [baseline, arm], rounds);
			return {
				baselineMedian,
				armMedian,
				tested,
				scale: 'unit',
				margin: marginOf(design, metric, sizeFor(design, [baselineMedian, armMedian])),
				reason: failed ?? (present(tested).length ? null : notMeasured(metric))
			};
		}
	};
}

/** What a margin that is a share is a share of: of two candidates neither is the measure of the other. */
function sizeFor(design: TrialDesign, [before, after]: readonly [number | null, number | null]): number | null {
	return asksForBest(design) && before !== null && after !== null ? (before + after) / 2 : before;
}

/**
 * All pages of a sweep together: by round the mean over the pages of each page's difference, as a share of the page's
 * own
 * baseline for times and bytes, in the metric's unit for the rest. A page that failed leaves the round to the others.
 */
function allPages(
	design: TrialDesign,
	{
		condition,
		metric,
		pages,
		comparisons
	}: { condition: string; metric: MetricId; pages: readonly Measure[]; comparisons: readonly Comparison[] }
): Measure {
	return {
		condition,
		metric,
		baselineId: comparisons[0]!.baseline.id,
		armId: ALL_PAGES,
		primary: design.primary.includes(metric),
		at(rounds) {
			const each = pages.map((page) => page.at(rounds)).filter((page) => page.reason === null);
			const asShares = ratioMakesSense(metric) && each.every((page) => (page.baselineMedian ?? 0) > 0);
			const sizeOf = (page: Measured) => (asShares ? page.baselineMedian! : 1);
			const tested: ByRound = Array.from({ length: rounds }, (_, round) => {
				const present = each.filter((page) => page.tested[round] !== null);
				return present.length ? mean(present.map((page) => page.tested[round]! / sizeOf(page))) : null;
			});
			const meanOf = (pick: (page: Measured) => number) => (each.length ? mean(each.map(pick)) : null);
			return {
				baselineMedian: meanOf((page) => page.baselineMedian!),
				armMedian: meanOf((page) => page.armMedian!),
				tested,
				scale: asShares ? 'share' : 'unit',
				margin: meanOf((page) => page.margin / sizeOf(page)) ?? metricOf(metric).margin.absolute,
				reason: each.length >= 2 ? null : { code: 'few-pages' }
			};
		}
	};
}

/** What is known of a measure that the trial decides on. */
interface Progress {
	called: boolean;
	/** Decided for good: better, worse or the same. */
	final: ShiftResult | null;
	latest: ShiftResult | null;
}

/** Results as of the last look; a call once made stays. @returns empty before the first look */
export function judgeRounds(
	design: TrialDesign,
	samples: Samples,
	looks: readonly Look[],
	most = MOST_FLIPS
): ShiftResult[] {
	if (!looks.length) return [];
	const measures = measuresOf(design, samples);
	const families = familiesOf(design, looks, measures, most);
	const progress = new Map<Measure, Progress>(
		measures.filter(({ primary }) => primary).map((measure) => [measure, { called: false, final: null, latest: null }])
	);
	looks.forEach((_, k) => takeLook({ design, looks, k, families, progress }));
	const last = looks.length - 1;
	return measures.map((measure) => {
		const existing = progress.get(measure);
		return existing ? (existing.final ?? existing.latest!) : explore(measure, design, looks, last);
	});
}

/** Tests that are judged jointly: all of a trial; those of one pair where it asks which is best. */
interface Family {
	measures: readonly Measure[];
	/** Figures after so many rounds. */
	seenAfter: (rounds: number) => readonly Measured[];
	/**
	 * Of every bound that was met by a look, under the same flips; the look's own is the last.
	 * @param share of what the trial may spend
	 */
	statistics: (k: number, share: number) => LookStatistics[];
}

function familiesOf(design: TrialDesign, looks: readonly Look[], measures: readonly Measure[], most: number): Family[] {
	const primary = measures.filter((measure) => measure.primary);
	const parts = asksForBest(design)
		? [...group(primary, ({ baselineId, armId }) => `${baselineId}/${armId}`).values()]
		: [primary];
	return parts.map((own) => {
		const seenAfter = onceBy((rounds: number) => own.map((measure) => measure.at(rounds)));
		return {
			measures: own,
			seenAfter,
			statistics: statisticsOf(design, looks, seenAfter, { parts: parts.length, most })
		};
	});
}

interface LookContext {
	design: TrialDesign;
	looks: readonly Look[];
	k: number;
	families: readonly Family[];
	progress: ReadonlyMap<Measure, Progress>;
}

/**
 * Statistics of the bounds up to the k-th look, under the flips of the k-th. Chosen flips begin alike, and are reckoned
 * once where they are few.
 */
function statisticsOf(
	design: TrialDesign,
	looks: readonly Look[],
	seenAfter: Family['seenAfter'],
	{ parts, most }: { parts: number; most: number }
): Family['statistics'] {
	const plan = flipPlanFor(PLAN_SPENDS / parts);
	const wanted = most < plan.most ? { ...plan, most, exactRounds: EXACT_ROUNDS } : plan;
	const statistics = new Map<string, LookStatistics>();
	return (k, share) => {
		const end = looks[k]!.rounds;
		const flips = flipsOf(end, design.seed, wanted);
		return boundsOf(design, looks, k).map(({ rounds, spent }) => {
			const key = `${rounds}/${end <= wanted.exactRounds ? end : 'chosen'}`;
			const tests = () => seenAfter(rounds).map((measured) => (measured.reason === null ? measured.tested : []));
			const found = statistics.get(key) ?? flipStatistics(tests(), flips, spent);
			if (parts === 1) statistics.set(key, found);
			return { ...found, spent: spent * share };
		});
	};
}

function onceBy<Value>(make: (key: number) => Value): (key: number) => Value {
	const values = new Map<number, Value>();
	return (key) => {
		if (!values.has(key)) values.set(key, make(key));
		return values.get(key)!;
	};
}

/**
 * Families share the level equally. One of which every test is called hands its share on to the others (Holm 1979):
 * they are looked at again with more. What is the same is not called, and hands nothing on.
 */
function takeLook({ design, looks, k, families, progress }: LookContext): void {
	const stateOf = (measure: Measure) => progress.get(measure)!;
	const isThrough = ({ measures }: Family) => measures.every((measure) => stateOf(measure).called);
	let left = families.filter((family) => !isThrough(family));
	let share = 0;
	while (left.length && share < 1 / left.length) {
		share = 1 / left.length;
		for (const family of left)
			callIn(family, { statistics: family.statistics(k, share), rounds: looks[k]!.rounds, stateOf });
		left = left.filter((family) => !isThrough(family));
	}
	const open = left.length;
	for (const family of families) {
		const adjusted = stepDownP(family.statistics(k, 1).at(-1)!).map((p) => Math.min(1, p / (share || 1)));
		const seen = family.seenAfter(looks[k]!.rounds);
		const openTests = family.measures.filter((measure) => !stateOf(measure).called).length;
		const moment = { design, looks, k, openTests: Math.max(1, openTests) * Math.max(1, open) };
		family.measures.forEach((measure, i) => {
			const state = stateOf(measure);
			if (state.final) return;
			const result = evaluate(measure, { measured: seen[i]!, moment, called: state.called, adjustedP: adjusted[i]! });
			state.latest = result;
			if (result.verdict === 'better' || result.verdict === 'worse' || result.verdict === 'same')
				state.final = { ...result, decidedAt: looks[k]!.rounds };
		});
	}
}

function callIn(
	{ measures, seenAfter }: Family,
	{
		statistics,
		rounds,
		stateOf
	}: { statistics: readonly LookStatistics[]; rounds: number; stateOf: (measure: Measure) => Progress }
): void {
	const seen = seenAfter(rounds);
	const open = measures.flatMap((measure, i) => (stateOf(measure).called || seen[i]!.reason !== null ? [] : [i]));
	for (const i of stepDownCalls(statistics, open)) stateOf(measures[i]!).called = true;
}

interface Moment {
	design: TrialDesign;
	looks: readonly Look[];
	k: number;
	/** Tests that still share what may be spent. */
	openTests: number;
}

function evaluate(
	measure: Measure,
	{ measured, moment, called, adjustedP }: { measured: Measured; moment: Moment; called: boolean; adjustedP: number }
): ShiftResult {
	const { design, looks, k } = moment;
	const alpha = intervalAlpha(design, looks, k);
	const blank = blankResult(measure, measured, design, 1 - alpha);
	if (measured.reason !== null) return blank;
	const differences = present(measured.tested);
	const estimate = pairedShift(differences, alpha);
	const shift = shiftOf(estimate, measure.metric, measured);
	const verdict = decide({ metric: measure.metric, shift, margin: measured.margin, called });
	const result = { ...blank, n: estimate.n, shift, p: estimate.p, adjustedP, verdict };
	if (verdict !== 'undecided') return result;
	const spread =
		shift.low === null ? pairedSpread(differences) : spreadBehind(shift.low, shift.high!, estimate.n, alpha);
	const open = openOf({ rounds: estimate.n, estimate: shift.estimate, margin: measured.margin, spread }, moment);
	return {
		...result,
		roundsNeeded: roundsToDecide(open.further),
		hope: chanceToDecide(open.planned, plannedRounds(design))
	};
}

/** What a further look, and the plan's last one, would have to get past. */
function openOf(
	test: Pick<Open, 'rounds' | 'estimate' | 'margin' | 'spread'>,
	{ design, looks, k, openTests }: Moment
): { further: Open; planned: Open } {
	const base = { ...test, intervalAlpha: intervalAlpha({ adaptive: true }, looks, k) };
	const level = (spent: number) => spent / openTests;
	return {
		further: { ...base, testAlpha: level(FURTHER_LEVEL) },
		planned: { ...base, testAlpha: level(design.adaptive ? PLANNED_LEVEL : looks[k]!.spent) }
	};
}

/**
 * Levels at which a single look can call, of what all looks have spent by then: what the data share with earlier
 * looks is
 * not paid twice (found by simulation, `npm run bench -- verdicts`).
 */
const FURTHER_LEVEL = 0.015;
const PLANNED_LEVEL = 0.05;

/** An interval without a verdict: the trial does not decide on it. */
function explore(measure: Measure, design: TrialDesign, looks: readonly Look[], k: number): ShiftResult {
	const measured = measure.at(looks[k]!.rounds);
	const alpha = intervalAlpha(design, looks, k);
	const blank = blankResult(measure, measured, design, 1 - alpha);
	if (measured.reason !== null) return blank;
	const estimate = pairedShift(present(measured.tested), alpha);
	return { ...blank, n: estimate.n, shift: shiftOf(estimate, measure.metric, measured), p: estimate.p };
}
