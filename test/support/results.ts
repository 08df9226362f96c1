/** Made-up results of a judged trial. */
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import type { ShiftResult, Verdict } from '$core/trial/types';

/** @param interval estimate, low, high in the metric's unit */
export function resultOf(
	metric: MetricId,
	verdict: Verdict,
	[estimate, low, high]: readonly [number, number | null, number | null],
	extra: Partial<ShiftResult> = {}
): ShiftResult {
	return {
		condition: 'desktop',
		metric,
		baseline: 1,
		arm: 2,
		n: 10,
		baselineMedian: 1000,
		armMedian: 1000 + estimate,
		shift: { estimate, low, high, relative: estimate / 1000 },
		rawShift: null,
		referenceCorrelation: null,
		scale: 'unit',
		margin: metricOf(metric).margin.absolute,
		p: 0.01,
		adjustedP: 0.01,
		primary: true,
		verdict,
		level: 0.95,
		decidedAt: null,
		reason: null,
		roundsNeeded: null,
		hope: null,
		target: null,
		...extra
	};
}
