/** Figures of a stage and of the one that it is compared with, with what the world did meanwhile taken out. */
import type { MetricId } from '../../metrics/catalogue';
import { mean } from '../../stats/summary';
import { referenceOf, stagesOf, type Comparison } from '../design/comparisons';
import type { StepComparison } from '../design/log';
import { drifts, marginOf, medianOf, notMeasured, type Measured } from './measures';
import {
	failedTooOften,
	failureReason,
	presenceReason,
	present,
	type ByRound,
	type Samples,
	type Slot
} from './samples';
import type { Look, NoVerdictReason, TrialArm, TrialDesign } from '../types';

/** Figures that are compared, under one idea of how the world drifted between the stages. */
export interface Model {
	first: ByRound;
	second: ByRound;
}

export interface StageMeasured extends Measured {
	/** With the reference page's taken off round by round: as an addition, and in proportion. The page alone without. */
	models: Model[];
	/** Figures of the page alone. */
	raw: Model;
	correlation: number | null;
}

/** A comparison of stages with what it may spend, and the fewest rounds that can reach that. */
export interface Stepwise {
	comparison: Comparison;
	stage: number;
	share: number;
	leastRounds: number;
	/** Of a log: whether it is against the stage before, the start, or both. */
	against: StepComparison['against'];
}

/** Where a figure of a stage belongs. */
interface StagePlace {
	samples: Samples;
	compared: Stepwise;
	/** A further page of the sample; null for the trial's own. */
	page: TrialArm | null;
	condition: string;
	metric: MetricId;
	look: Look;
}

export function measureStage(design: TrialDesign, place: StagePlace): StageMeasured {
	const { samples, compared, page, condition, metric, look } = place;
	const { baseline, arm } = compared.comparison;
	const reference = referenceOf(design);
	const stages = stagesOf(design);
	const slotOf = (stage: TrialArm, everyStage: TrialArm | null): Slot =>
		everyStage ? { condition, armId: everyStage.id, stage: stages.indexOf(stage) } : { condition, armId: stage.id };
	const firstRounds = Math.max(...samples.loads({ condition, armId: baseline.id }).map((load) => load.round), 0);
	const figuresOf = (everyStage: TrialArm | null): Model => ({
		first: samples.byRound(slotOf(baseline, everyStage), metric, firstRounds),
		second: samples.byRound(slotOf(arm, everyStage), metric, look.rounds)
	});
	const raw = figuresOf(page);
	const calm = reference && figuresOf(reference);
	const baselineMedian = medianOf(raw.first);
	const models = calm ? withoutDrift(metric, raw, calm) : [raw];
	return {
		baselineMedian,
		armMedian: medianOf(raw.second),
		tested: [...raw.first, ...raw.second],
		models,
		raw,
		correlation: calm
			? pooledCorrelation([
					[raw.first, calm.first],
					[raw.second, calm.second]
				])
			: null,
		scale: 'unit',
		margin: marginOf(design, metric, baselineMedian),
		reason:
			(page
				? pageReason(samples, { condition, page, stages, compared: [baseline, arm] })
				: failureReason(samples, condition, [baseline, arm])) ??
			presenceReason(samples, condition, [baseline, arm]) ??
			(reference ? referenceReason(samples, { condition, reference, stages, compared: [baseline, arm] }) : null) ??
			(medianOf(raw.first) === null || medianOf(raw.second) === null ? notMeasured(metric) : null) ??
			(reference || design.returnStage != null || !drifts(metric) ? null : { code: 'no-drift-check' }) ??
			tooFew([baseline, arm], models, compared.leastRounds)
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

interface EveryStage {
	condition: string;
	stages: readonly TrialArm[];
	compared: readonly TrialArm[];
}

/** How often a page that is loaded in every stage failed in the stages that are compared; null when not too often. */
function failedInStages(samples: Samples, armId: number, { condition, stages, compared }: EveryStage) {
	for (const stage of compared) {
		const loads = samples.loads({ condition, armId, stage: stages.indexOf(stage) });
		const failed = loads.filter((load) => load.status === 'failed').length;
		if (failedTooOften(loads)) return { failed, loads: loads.length, stage: stage.name };
	}
	return null;
}

function referenceReason(
	samples: Samples,
	{ reference, ...place }: EveryStage & { reference: TrialArm }
): NoVerdictReason | null {
	const found = failedInStages(samples, reference.id, place);
	return found && { code: 'reference-failures', ...found };
}

function pageReason(samples: Samples, { page, ...place }: EveryStage & { page: TrialArm }): NoVerdictReason | null {
	const found = failedInStages(samples, page.id, place);
	return found && { code: 'failures', failed: found.failed, loads: found.loads, arm: page.name };
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
