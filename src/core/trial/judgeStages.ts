/** Judging stages: figures before and after a change, whole rounds dealt anew, drift taken out by a reference page. */
import type { MetricId } from '../metrics/catalogue';
import { metricsOf } from './metricsOf';
import { dealsOf, dealStatistics, MOST_DEALS } from '../stats/deals';
import { twoSampleShift } from '../stats/rankSum';
import { stepDownCalls, stepDownP } from '../stats/stepDown';
import { mean, scaledMad } from '../stats/summary';
import { comparisonsOf, stagesOf, type Comparison } from './comparisons';
import { MANY_LOOKS_ALPHA, ONE_LOOK_ALPHA } from './looks';
import { blankResult, finite, marginOf, medianOf, notMeasured, shiftOf, type Measured } from './measures';
import { failedTooOften, failureReason, presenceReason, present, type ByRound, type Samples } from './samples';
import type { Look, NoVerdictReason, ShiftResult, TrialArm, TrialDesign } from './types';
import { decide, roundsToDecide } from './verdict';

/**
 * Fewer whole rounds in a stage give no verdict: three before and three after cannot tell five per cent from chance.
 */
const FEWEST_ROUNDS = 4;

interface StageMeasured extends Measured {
	/** Figures that are compared, with the reference page's taken off round by round. */
	first: ByRound;
	second: ByRound;
	/** Figures of the page alone. */
	raw: { first: ByRound; second: ByRound };
	correlation: number | null;
}

/** Results of the comparisons whose stage has been looked at. A stage is judged once it is whole, and stays judged. */
export function judgeStages(
	design: TrialDesign,
	samples: Samples,
	looks: readonly Look[],
	most = MOST_DEALS
): ShiftResult[] {
	const byComparison = comparisonsOf(design).map((comparison) => {
		const stage = stagesOf(design).indexOf(comparison.arm);
		return judgeStage(
			design,
			samples,
			comparison,
			looks.filter((look) => look.stage === stage),
			most
		);
	});
	const order = design.conditions.flatMap(({ id }) => metricsOf(design).map((metric) => `${id}/${metric.id}`));
	return byComparison
		.flat()
		.sort((a, b) => order.indexOf(`${a.condition}/${a.metric}`) - order.indexOf(`${b.condition}/${b.metric}`));
}

function judgeStage(
	design: TrialDesign,
	samples: Samples,
	comparison: Comparison,
	looks: readonly Look[],
	most: number
): ShiftResult[] {
	const finals = new Map<string, ShiftResult>();
	let results: ShiftResult[] = [];
	looks.forEach((look, k) => {
		const alpha = k === 0 && look.by === 'plan' ? ONE_LOOK_ALPHA : MANY_LOOKS_ALPHA;
		results = takeLook(design, samples, comparison, look, alpha, most).map((result) => {
			const key = `${result.condition}/${result.metric}`;
			const final = finals.get(key);
			if (final) return final;
			if (result.verdict !== 'better' && result.verdict !== 'worse' && result.verdict !== 'same') return result;
			finals.set(key, { ...result, decidedAt: look.rounds });
			return finals.get(key)!;
		});
	});
	return results;
}

function takeLook(
	design: TrialDesign,
	samples: Samples,
	comparison: Comparison,
	look: Look,
	alpha: number,
	most: number
): ShiftResult[] {
	const measures = design.conditions.flatMap(({ id: condition }) =>
		metricsOf(design).map(({ id: metric }) => ({
			condition,
			metric,
			primary: design.primary.includes(metric),
			measured: measureStage(design, samples, comparison, condition, metric, look)
		}))
	);
	const family = measures.filter((one) => one.primary);
	const usable = family.flatMap((one, i) => (one.measured.reason === null ? [i] : []));
	const first = family[0]?.measured;
	const deals = dealsOf(first?.first.length ?? 0, first?.second.length ?? 0, design.seed, most);
	const statistics = dealStatistics(
		family.map(({ measured }) =>
			measured.reason === null ? [...measured.first, ...measured.second] : measured.tested.map(() => null)
		),
		deals,
		look.spent
	);
	const called = new Set(stepDownCalls([statistics], usable).map((i) => family[i]));
	const adjusted = stepDownP(statistics);
	return measures.map((one): ShiftResult => {
		const { condition, metric, primary, measured } = one;
		const blank = blankResult(
			{ condition, metric, baselineId: comparison.baseline.id, armId: comparison.arm.id, primary, at: () => measured },
			measured,
			design,
			1 - alpha
		);
		if (measured.reason !== null) return blank;
		const estimate = twoSampleShift(present(measured.first), present(measured.second), alpha);
		const shift = shiftOf(estimate, metric, measured);
		const hasReference = design.arms.some((arm) => arm.reference);
		const raw = hasReference
			? finite(twoSampleShift(present(measured.raw.first), present(measured.raw.second), alpha))
			: null;
		const n = Math.min(present(measured.first).length, present(measured.second).length);
		const result = { ...blank, n, shift, rawShift: raw, referenceCorrelation: measured.correlation, p: estimate.p };
		if (!primary) return result;
		const verdict = decide({ metric, shift, margin: measured.margin, called: called.has(one) });
		const adjustedP = adjusted[family.indexOf(one)]!;
		return {
			...result,
			adjustedP,
			verdict,
			roundsNeeded: verdict === 'undecided' ? roundsNeeded(measured, shift.estimate, alpha, look, family.length) : null
		};
	});
}

/** Two independent stages of n loads each are as sharp as n paired differences with the spread of a difference. */
function roundsNeeded(
	{ first, second, margin }: StageMeasured,
	estimate: number,
	alpha: number,
	look: Look,
	tests: number
): number {
	const spread = Math.SQRT2 * Math.max(scaledMad(present(first)), scaledMad(present(second)));
	return roundsToDecide({
		rounds: look.rounds,
		estimate,
		margin,
		spread,
		testAlpha: look.spent / tests,
		intervalAlpha: alpha
	});
}

function measureStage(
	design: TrialDesign,
	samples: Samples,
	{ baseline, arm }: Comparison,
	condition: string,
	metric: MetricId,
	look: Look
): StageMeasured {
	const reference = design.arms.find((one) => one.reference) ?? null;
	const stages = stagesOf(design);
	const figures = (stage: TrialArm, rounds: number) => samples.byRound({ condition, armId: stage.id }, metric, rounds);
	const firstRounds = Math.max(...samples.loads({ condition, armId: baseline.id }).map((load) => load.round), 0);
	const raw = { first: figures(baseline, firstRounds), second: figures(arm, look.rounds) };
	const calm = (stage: TrialArm, rounds: number) =>
		samples.byRound({ condition, armId: reference!.id, stage: stages.indexOf(stage) }, metric, rounds);
	const calmFirst = reference && calm(baseline, firstRounds);
	const calmSecond = reference && calm(arm, look.rounds);
	const first = calmFirst ? less(raw.first, calmFirst) : raw.first;
	const second = calmSecond ? less(raw.second, calmSecond) : raw.second;
	const baselineMedian = medianOf(raw.first);
	return {
		baselineMedian,
		armMedian: medianOf(raw.second),
		tested: [...first, ...second],
		first,
		second,
		raw,
		correlation:
			calmFirst && calmSecond
				? pooledCorrelation([
						[raw.first, calmFirst],
						[raw.second, calmSecond]
					])
				: null,
		scale: 'unit',
		margin: marginOf(design, metric, baselineMedian),
		reason:
			failureReason(samples, condition, [baseline, arm]) ??
			presenceReason(samples, condition, [baseline, arm]) ??
			(reference ? referenceReason(samples, condition, reference, stages, [baseline, arm]) : null) ??
			(medianOf(raw.first) === null || medianOf(raw.second) === null ? notMeasured(metric) : null) ??
			tooFew([
				[baseline, first],
				[arm, second]
			])
	};
}

/** The figure less the reference page's of the same round. */
function less(page: ByRound, reference: ByRound): ByRound {
	return page.map((figure, i) => (figure === null || reference[i] == null ? null : figure - reference[i]!));
}

function referenceReason(
	samples: Samples,
	condition: string,
	reference: TrialArm,
	stages: readonly TrialArm[],
	compared: readonly TrialArm[]
): NoVerdictReason | null {
	for (const stage of compared) {
		const loads = samples.loads({ condition, armId: reference.id, stage: stages.indexOf(stage) });
		const failed = loads.filter((load) => load.status === 'failed').length;
		if (failedTooOften(loads)) return { code: 'reference-failures', failed, loads: loads.length, stage: stage.name };
	}
	return null;
}

function tooFew(stages: readonly [TrialArm, ByRound][]): NoVerdictReason | null {
	for (const [stage, figures] of stages) {
		const rounds = present(figures).length;
		if (rounds < FEWEST_ROUNDS) return { code: 'few-rounds', stage: stage.name, rounds, least: FEWEST_ROUNDS };
	}
	return null;
}

/**
 * Pearson's correlation of page and reference over the rounds, each stage about its own mean; null when either never
 * moves.
 */
function pooledCorrelation(stages: readonly [ByRound, ByRound][]): number | null {
	const pairs = stages.flatMap(([page, reference]) => {
		const known = page.flatMap((figure, i) =>
			figure === null || reference[i] == null ? [] : [[figure, reference[i]!] as const]
		);
		if (!known.length) return [];
		const centre = [mean(known.map(([a]) => a)), mean(known.map(([, b]) => b))] as const;
		return known.map(([a, b]) => [a - centre[0], b - centre[1]] as const);
	});
	const sum = (pick: (pair: readonly [number, number]) => number) =>
		pairs.reduce((total, pair) => total + pick(pair), 0);
	const size = Math.sqrt(sum(([a]) => a * a) * sum(([, b]) => b * b));
	return size > 0 ? sum(([a, b]) => a * b) / size : null;
}
