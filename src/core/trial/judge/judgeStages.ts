/** Judging stages: figures before and after a change, whole rounds dealt anew, drift taken out by a reference page. */
import type { MetricId } from '../../metrics/catalogue';
import { metricsOf } from '../design/metricsOf';
import { dealCountFor, dealsOf, dealStatistics } from '../../stats/deals';
import type { Estimate } from '../../stats/estimate';
import { twoSampleShift } from '../../stats/rankSum';
import { stepDownCalls, stepDownP, type Bound } from '../../stats/stepDown';
import { comparisonsOf, referenceOf, samplePagesOf, stagesOf } from '../design/comparisons';
import { fewestStepRounds, isLog, stepComparisons, stepShare, type StepComparison } from '../design/log';
import { equalShare, FEWEST_STAGE_ROUNDS, MANY_LOOKS_ALPHA, ONE_LOOK_ALPHA, stageBoundsOf } from '../design/looks';
import { blankResult, finite, shiftOf } from './measures';
import { present, type Samples } from './samples';
import { measureStage, type Model, type StageMeasured, type Stepwise } from './stageMeasures';
import type { Look, ShiftResult, StageResults, TrialArm, TrialDesign } from '../types';
import { decide } from './verdict';

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

/**
 * Results of the comparisons whose stage has been looked at. A stage is judged once it is whole, and stays judged. The
 * pages of a sample are one family: whole rounds are dealt anew with all that they hold.
 */
export function judgeStages(
	design: TrialDesign,
	samples: Samples,
	looks: readonly Look[],
	most?: number
): { own: StageResults; pages: StageResults } {
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
	const [start, previous] = [inOrder('start'), isLog(design) ? inOrder('previous') : []];
	const ofPages = (isWanted: (result: ShiftResult) => boolean): StageResults => ({
		start: start.filter(isWanted),
		previous: previous.filter(isWanted)
	});
	return { own: ofPages(({ page }) => page === undefined), pages: ofPages(({ page }) => page !== undefined) };
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
			const key = `${result.page ?? ''}/${result.condition}/${result.metric}`;
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
	/** A further page of the sample; null for the trial's own. */
	page: TrialArm | null;
	condition: string;
	metric: MetricId;
	primary: boolean;
	measured: StageMeasured;
}

function takeLook(at: StageLook): ShiftResult[] {
	const { design, samples, compared, look, alpha } = at;
	const { comparison } = compared;
	const measures = [null, ...samplePagesOf(design)].flatMap((page) =>
		design.conditions.flatMap(({ id: condition }) =>
			metricsOf(design).map(({ id: metric }): StageMeasure => ({
				page,
				condition,
				metric,
				primary: design.primary.includes(metric),
				measured: measureStage(design, { samples, compared, page, condition, metric, look })
			}))
		)
	);
	const family = measures.filter((measure) => measure.primary);
	const tested = jointly(family, at);
	return measures.map((measure): ShiftResult => {
		const { page, condition, metric, primary, measured } = measure;
		const { baseline, arm } = comparison;
		const place = { condition, metric, baselineId: baseline.id, armId: arm.id, primary, at: () => measured };
		const blank = { ...blankResult(place, measured, design, 1 - alpha), ...(page && { page: page.id }) };
		if (measured.reason !== null) return blank;
		const estimate = weakest(measured.models, alpha);
		const shift = shiftOf(estimate, metric, measured);
		const raw = referenceOf(design)
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
