/** Judging stages: figures before and after a change, whole rounds dealt anew, drift taken out by a reference page. */
import type { MetricId } from '../../metrics/catalogue';
import { metricsOf } from '../design/metricsOf';
import { dealCountFor, dealsOf, dealStatistics } from '../../stats/deals';
import type { Estimate } from '../../stats/estimate';
import { twoSampleShift } from '../../stats/rankSum';
import { stepDownCalls, stepDownP, type Bound } from '../../stats/stepDown';
import { mean } from '../../stats/summary';
import { comparisonsOf, stagesOf, type Comparison } from '../design/comparisons';
import { fewestStepRounds, isLog, stepComparisons, stepShare, type StepComparison } from '../design/log';
import { equalShare, FEWEST_STAGE_ROUNDS, MANY_LOOKS_ALPHA, ONE_LOOK_ALPHA, stageBoundsOf } from '../design/looks';
import { blankResult, drifts, finite, marginOf, medianOf, notMeasured, shiftOf, type Measured } from './measures';
import { failedTooOften, failureReason, presenceReason, present, type ByRound, type Samples } from './samples';
import type { Look, NoVerdictReason, ShiftResult, TrialArm, TrialDesign } from '../types';
import { decide } from './verdict';

/** Figures that are compared, under one idea of how the world drifted between the stages. */
interface Model {
	first: ByRound;
	second: ByRound;
}

interface StageMeasured extends Measured {
	/** With the reference page's taken off round by round: as an addition, and in proportion. The page alone without. */
	models: Model[];
	/** Figures of the page alone. */
	raw: Model;
	correlation: number | null;
}

/** A comparison of stages with what it may spend, and the fewest rounds that can reach that. */
interface Stepwise {
	comparison: Comparison;
	stage: number;
	share: number;
	leastRounds: number;
	/** Of a log: whether it is against the stage before, the start, or both. */
	against: StepComparison['against'];
}

function comparedStages(design: TrialDesign): Stepwise[] {
	const stages = stagesOf(design);
	if (isLog(design))
		return stepComparisons(design).map(({ stage, against, ...comparison }) => ({
			comparison,
			stage,
			against,
			share: stepShare(design, { stage, against }),
			leastRounds: fewestStepRounds(design.plannedSteps!)
		}));
	return comparisonsOf(design).map((comparison) => ({
		comparison,
		stage: stages.indexOf(comparison.arm),
		against: 'start',
		share: equalShare(stages.length),
		leastRounds: FEWEST_STAGE_ROUNDS
	}));
}

/** What was judged of stages: against the first, and in a log also each against the one before. */
export interface StageResults {
	start: ShiftResult[];
	previous: ShiftResult[];
}

/** Results of the comparisons whose stage has been looked at. A stage is judged once it is whole, and stays judged. */
export function judgeStages(
	design: TrialDesign,
	samples: Samples,
	looks: readonly Look[],
	most?: number
): StageResults {
	const judged = comparedStages(design).map((compared) => ({
		against: compared.against,
		results: judgeStage(design, {
			samples,
			compared,
			looks: looks.filter((look) => look.stage === compared.stage),
			most: most ?? dealCountFor(compared.share)
		})
	}));
	const order = design.conditions.flatMap(({ id }) => metricsOf(design).map((metric) => `${id}/${metric.id}`));
	const inOrder = (wanted: StepComparison['against']) =>
		judged
			.filter(({ against }) => against === wanted || against === 'both')
			.flatMap(({ results }) => results)
			.sort((a, b) => order.indexOf(`${a.condition}/${a.metric}`) - order.indexOf(`${b.condition}/${b.metric}`));
	return { start: inOrder('start'), previous: isLog(design) ? inOrder('previous') : [] };
}

function judgeStage(
	design: TrialDesign,
	{ samples, compared, looks, most }: { samples: Samples; compared: Stepwise; looks: readonly Look[]; most: number }
): ShiftResult[] {
	const finals = new Map<string, ShiftResult>();
	let results: ShiftResult[] = [];
	looks.forEach((look, k) => {
		const alpha = k === 0 && look.by === 'plan' ? ONE_LOOK_ALPHA : MANY_LOOKS_ALPHA;
		const bounds = stageBoundsOf(design, compared.share, looks, k);
		results = takeLook({ design, samples, compared, look, bounds, alpha, most }).map((result) => {
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

interface StageLook {
	design: TrialDesign;
	samples: Samples;
	compared: Stepwise;
	look: Look;
	bounds: readonly Bound[];
	alpha: number;
	most: number;
}

interface StageMeasure {
	condition: string;
	metric: MetricId;
	primary: boolean;
	measured: StageMeasured;
}

function takeLook(at: StageLook): ShiftResult[] {
	const { design, samples, compared, look, alpha } = at;
	const { comparison } = compared;
	const measures = design.conditions.flatMap(({ id: condition }) =>
		metricsOf(design).map(({ id: metric }): StageMeasure => ({
			condition,
			metric,
			primary: design.primary.includes(metric),
			measured: measureStage(design, { samples, compared, condition, metric, look })
		}))
	);
	const family = measures.filter((measure) => measure.primary);
	const tested = jointly(family, at);
	return measures.map((measure): ShiftResult => {
		const { condition, metric, primary, measured } = measure;
		const blank = blankResult(
			{ condition, metric, baselineId: comparison.baseline.id, armId: comparison.arm.id, primary, at: () => measured },
			measured,
			design,
			1 - alpha
		);
		if (measured.reason !== null) return blank;
		const estimate = weakest(measured.models, alpha);
		const shift = shiftOf(estimate, metric, measured);
		const hasReference = design.arms.some((arm) => arm.reference);
		const raw = hasReference
			? finite(twoSampleShift(present(measured.raw.first), present(measured.raw.second), alpha))
			: null;
		const n = Math.min(
			...measured.models.flatMap((model) => [present(model.first).length, present(model.second).length])
		);
		const result = { ...blank, n, shift, rawShift: raw, referenceCorrelation: measured.correlation, p: estimate.p };
		if (!primary) return result;
		const test = tested[family.indexOf(measure)]!;
		const verdict = decide({ metric, shift, margin: measured.margin, called: test.called });
		return {
			...result,
			adjustedP: test.p,
			// Stages are in the past once they are judged: no further round of theirs can be had.
			verdict
		};
	});
}

/**
 * The interval of the weaker verdict: it holds those of both models, so that what is said of it holds under both. The
 * estimate is that of the model under which less happened.
 */
function weakest(models: readonly Model[], alpha: number): Estimate {
	const all = models.map(({ first, second }) => twoSampleShift(present(first), present(second), alpha));
	const least = all.reduce((a, b) => (Math.abs(b.estimate) < Math.abs(a.estimate) ? b : a));
	return {
		...least,
		low: Math.min(...all.map(({ low }) => low)),
		high: Math.max(...all.map(({ high }) => high)),
		p: Math.max(...all.map(({ p }) => p))
	};
}

/** Joint tests of the family under each model; called is what is called under all of them. */
function jointly(
	family: readonly StageMeasure[],
	{ design, bounds, most }: StageLook
): { called: boolean; p: number }[] {
	const usable = family.flatMap((measure, i) => (measure.measured.reason === null ? [i] : []));
	const first = family[0]?.measured.raw;
	const inOrder = bounds.length > 1;
	const deals = dealsOf(first?.first.length ?? 0, first?.second.length ?? 0, design.seed, most, inOrder);
	const models = Math.max(1, ...family.map(({ measured }) => measured.models.length));
	const found = Array.from({ length: models }, (_, model) => {
		const values = family.map(({ measured }) => {
			if (measured.reason !== null) return measured.tested.map(() => null);
			// Where only one model makes sense it stands for both.
			const own = measured.models[model] ?? measured.models[0]!;
			return [...own.first, ...own.second];
		});
		const statistics = dealStatistics(values, deals, bounds);
		return { called: new Set(stepDownCalls(statistics, usable)), p: stepDownP(statistics.at(-1)!) };
	});
	return family.map((_, i) => ({
		called: found.every(({ called }) => called.has(i)),
		p: Math.max(...found.map(({ p }) => p[i]!))
	}));
}

function measureStage(
	design: TrialDesign,
	{
		samples,
		compared: {
			comparison: { baseline, arm },
			leastRounds
		},
		condition,
		metric,
		look
	}: { samples: Samples; compared: Stepwise; condition: string; metric: MetricId; look: Look }
): StageMeasured {
	const reference = design.arms.find((arm) => arm.reference) ?? null;
	const stages = stagesOf(design);
	const figures = (stage: TrialArm, rounds: number) => samples.byRound({ condition, armId: stage.id }, metric, rounds);
	const firstRounds = Math.max(...samples.loads({ condition, armId: baseline.id }).map((load) => load.round), 0);
	const raw = { first: figures(baseline, firstRounds), second: figures(arm, look.rounds) };
	const calm = (stage: TrialArm, rounds: number) =>
		samples.byRound({ condition, armId: reference!.id, stage: stages.indexOf(stage) }, metric, rounds);
	const calmFirst = reference && calm(baseline, firstRounds);
	const calmSecond = reference && calm(arm, look.rounds);
	const baselineMedian = medianOf(raw.first);
	const models = calmFirst && calmSecond ? withoutDrift(metric, raw, { first: calmFirst, second: calmSecond }) : [raw];
	return {
		baselineMedian,
		armMedian: medianOf(raw.second),
		tested: [...raw.first, ...raw.second],
		models,
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
			(reference ? referenceReason(samples, { condition, reference, stages, compared: [baseline, arm] }) : null) ??
			(medianOf(raw.first) === null || medianOf(raw.second) === null ? notMeasured(metric) : null) ??
			(reference || design.returnStage != null || !drifts(metric) ? null : { code: 'no-drift-check' }) ??
			tooFew([baseline, arm], models, leastRounds)
	};
}

/**
 * Two ideas of how the world drifted, round by round: something was added to every page's time, or machine and line
 * slowed in proportion. Neither can be told from so few rounds, so both are judged.
 */
function withoutDrift(metric: MetricId, raw: Model, calm: Model): Model[] {
	const added = { first: subtractReference(raw.first, calm.first), second: subtractReference(raw.second, calm.second) };
	const size = medianOf(calm.first);
	const isPositive = present([...calm.first, ...calm.second]).every((figure) => figure > 0);
	if (!drifts(metric) || size === null || size <= 0 || !isPositive) return [added];
	const scaled = (page: ByRound, reference: ByRound): ByRound =>
		page.map((figure, i) => (figure === null || reference[i] == null ? null : (figure / reference[i]!) * size));
	return [added, { first: scaled(raw.first, calm.first), second: scaled(raw.second, calm.second) }];
}

/** The figure less the reference page's of the same round. */
function subtractReference(page: ByRound, reference: ByRound): ByRound {
	return page.map((figure, i) => (figure === null || reference[i] == null ? null : figure - reference[i]!));
}

function referenceReason(
	samples: Samples,
	{
		condition,
		reference,
		stages,
		compared
	}: { condition: string; reference: TrialArm; stages: readonly TrialArm[]; compared: readonly TrialArm[] }
): NoVerdictReason | null {
	for (const stage of compared) {
		const loads = samples.loads({ condition, armId: reference.id, stage: stages.indexOf(stage) });
		const failed = loads.filter((load) => load.status === 'failed').length;
		if (failedTooOften(loads)) return { code: 'reference-failures', failed, loads: loads.length, stage: stage.name };
	}
	return null;
}

function tooFew(
	[before, after]: readonly [TrialArm, TrialArm],
	models: readonly Model[],
	least: number
): NoVerdictReason | null {
	for (const { first, second } of models)
		for (const [stage, figures] of [[before, first] as const, [after, second] as const]) {
			const rounds = present(figures).length;
			if (rounds < least) return { code: 'few-rounds', stage: stage.name, rounds, least };
		}
	return null;
}

/**
 * Pearson's correlation of page and reference over the rounds, each stage about its own mean; null when either never
 * moves.
 */
function pooledCorrelation(stages: readonly [ByRound, ByRound][]): number | null {
	const differences = stages.flatMap(([page, reference]) => {
		const both = page.flatMap((figure, i) =>
			figure === null || reference[i] == null ? [] : [[figure, reference[i]!] as const]
		);
		if (!both.length) return [];
		const centre = [mean(both.map(([a]) => a)), mean(both.map(([, b]) => b))] as const;
		return both.map(([a, b]) => [a - centre[0], b - centre[1]] as const);
	});
	const sum = (pick: (pair: readonly [number, number]) => number) =>
		differences.reduce((total, pair) => total + pick(pair), 0);
	const size = Math.sqrt(sum(([a]) => a * a) * sum(([, b]) => b * b));
	return size > 0 ? sum(([a, b]) => a * b) / size : null;
}
