/** Judging interleaved arms: paired differences by round, joint sign flips, look after look. */
import { hasPages } from '../design/kinds';
import { metricOf, type MetricId } from '../../metrics/catalogue';
import { EXACT_ROUNDS, flipStatistics, flipsOf, MOST_FLIPS } from '../../stats/signFlips';
import { pairedShift, pairedSpread } from '../../stats/signedRank';
import { stepDownCalls, stepDownP, type LookStatistics } from '../../stats/stepDown';
import { mean } from '../../stats/summary';
import { ALL_PAGES, comparisonsOf, type Comparison } from '../design/comparisons';
import { boundsOf, intervalAlpha, plannedRounds } from '../design/looks';
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
	const comparisons = comparisonsOf(design);
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
			const failed = failureReason(samples, condition, [baseline, arm], rounds);
			return {
				baselineMedian,
				armMedian: medianOf(after),
				tested,
				scale: 'unit',
				margin: marginOf(design, metric, baselineMedian),
				reason: failed ?? (present(tested).length ? null : notMeasured(metric))
			};
		}
	};
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
	const family = measures.filter((measure) => measure.primary);
	const progress = new Map<Measure, Progress>(
		family.map((measure) => [measure, { called: false, final: null, latest: null }])
	);
	const seenAfter = onceBy((rounds: number) => family.map((measure) => measure.at(rounds)));
	const statistics = statisticsOf(design, looks, seenAfter, most);
	looks.forEach((look, k) =>
		takeLook({ design, looks, k, family, seen: seenAfter(look.rounds), statistics: statistics(k), progress })
	);
	const last = looks.length - 1;
	return measures.map((measure) => {
		const existing = progress.get(measure);
		return existing ? (existing.final ?? existing.latest!) : explore(measure, design, looks, last);
	});
}

interface LookContext {
	design: TrialDesign;
	looks: readonly Look[];
	k: number;
	family: readonly Measure[];
	/** Figures of the family at this look. */
	seen: readonly Measured[];
	/** Of every bound that was met by this look, under the same flips; this look's own is the last. */
	statistics: readonly LookStatistics[];
	progress: ReadonlyMap<Measure, Progress>;
}

/**
 * Statistics of the bounds up to the k-th look, under the flips of the k-th. Chosen flips begin alike, and are reckoned
 * once.
 */
function statisticsOf(
	design: TrialDesign,
	looks: readonly Look[],
	seenAfter: (rounds: number) => readonly Measured[],
	most: number
): (k: number) => LookStatistics[] {
	const statistics = new Map<string, LookStatistics>();
	return (k) => {
		const end = looks[k]!.rounds;
		const flips = flipsOf(end, design.seed, most);
		return boundsOf(design, looks, k).map(({ rounds, spent }) => {
			const key = `${rounds}/${end <= EXACT_ROUNDS ? end : 'chosen'}`;
			const found =
				statistics.get(key) ??
				flipStatistics(
					seenAfter(rounds).map((measured) => (measured.reason === null ? measured.tested : [])),
					flips,
					spent
				);
			statistics.set(key, found);
			return { ...found, spent };
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

function takeLook({ design, looks, k, family, seen, statistics, progress }: LookContext): void {
	const states = family.map((measure) => progress.get(measure)!);
	const open = states.flatMap((state, i) => (state.called || seen[i]!.reason !== null ? [] : [i]));
	for (const i of stepDownCalls(statistics, open)) states[i]!.called = true;
	const adjusted = stepDownP(statistics.at(-1)!);
	const openTests = Math.max(1, states.filter((state) => !state.called).length);
	states.forEach((state, i) => {
		if (state.final) return;
		const context = { design, looks, k, openTests };
		const result = evaluate(family[i]!, {
			measured: seen[i]!,
			moment: context,
			called: state.called,
			adjustedP: adjusted[i]!
		});
		state.latest = result;
		if (result.verdict === 'better' || result.verdict === 'worse' || result.verdict === 'same')
			state.final = { ...result, decidedAt: looks[k]!.rounds };
	});
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
