/** Figures of what is compared, by round, and the result that they give. */
import { marginFor, metricOf, type MetricId } from '../../metrics/catalogue';
import type { Estimate } from '../../stats/estimate';
import { medianOrNull } from '../../stats/summary';
import { present, type ByRound } from './samples';
import type { Interval, NoVerdictReason, Shift, ShiftResult, Target, TrialDesign } from '../types';

/** One thing that a trial measures: a metric of one comparison under one set of conditions. */
export interface Measure {
	condition: string;
	metric: MetricId;
	baselineId: number;
	armId: number;
	primary: boolean;
	/** Figures of the first so many rounds. */
	at(rounds: number): Measured;
}

export interface Measured {
	baselineMedian: number | null;
	armMedian: number | null;
	/** Interleaved arms: arm minus baseline, by round. Stages: the figures that are compared, those before first. */
	tested: ByRound;
	scale: 'unit' | 'share';
	/** On that scale. */
	margin: number;
	/** Why there can be no verdict; null otherwise. */
	reason: NoVerdictReason | null;
}

/** Points and layout shifts have no sensible ratio: near zero a per cent says nothing. */
export function ratioMakesSense(metric: MetricId): boolean {
	const { unit } = metricOf(metric);
	return unit !== 'points' && unit !== 'unitless';
}

/** What a slower machine or line changes; bytes, counts and shifts of the layout it leaves alone. */
export function drifts(metric: MetricId): boolean {
	const { unit } = metricOf(metric);
	return unit === 'ms' || unit === 'points';
}

export function finite({ estimate, low, high }: Estimate): Interval {
	return { estimate, low: Number.isFinite(low) ? low : null, high: Number.isFinite(high) ? high : null };
}

export function shiftOf(estimate: Estimate, metric: MetricId, { scale, baselineMedian }: Measured): Shift {
	const shift = finite(estimate);
	const hasShare = scale === 'unit' && ratioMakesSense(metric) && baselineMedian !== null && baselineMedian > 0;
	return { ...shift, relative: hasShare ? shift.estimate / baselineMedian : null };
}

/** A result about which nothing is known yet but the middle figures. */
export function blankResult(measure: Measure, measured: Measured, design: TrialDesign, level: number): ShiftResult {
	const { condition, metric, baselineId, armId, primary } = measure;
	const { baselineMedian, armMedian, scale, margin, reason } = measured;
	return {
		condition,
		metric,
		baseline: baselineId,
		arm: armId,
		n: 0,
		baselineMedian,
		armMedian,
		shift: null,
		rawShift: null,
		referenceCorrelation: null,
		scale,
		margin,
		p: null,
		adjustedP: null,
		primary,
		verdict: 'none',
		level,
		decidedAt: null,
		reason,
		roundsNeeded: null,
		hope: null,
		target: targetOf(measure, baselineMedian, armMedian, design)
	};
}

/** Where both middle figures stand to the level that is good enough; null for a metric without one. */
function targetOf(
	{ metric, condition }: Pick<Measure, 'metric' | 'condition'>,
	before: number | null,
	after: number | null,
	{ targets, conditionTargets }: TrialDesign
): Target | null {
	const value =
		conditionTargets?.[condition]?.[metric] ?? targets?.[metric] ?? metricOf(metric).thresholds?.good ?? null;
	if (value === null || before === null || after === null) return null;
	const meets = (figure: number) => (metricOf(metric).higherIsBetter ? figure >= value : figure <= value);
	const met = Number(meets(before)) + Number(meets(after));
	return { value, standing: met === 2 ? 'both-met' : met === 1 ? 'crosses' : 'both-missed' };
}

export function medianOf(figures: ByRound): number | null {
	return medianOrNull(present(figures));
}

export function marginOf(design: TrialDesign, metric: MetricId, baselineMedian: number | null): number {
	return marginFor(metric, baselineMedian ?? 0, design.margins);
}

/** Why nothing can be said although nothing failed. */
export function notMeasured(metric: MetricId): NoVerdictReason {
	return { code: 'not-measured', metric };
}
