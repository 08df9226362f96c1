/** Which better verdicts stand on work that is only put off: it comes by itself later, or after the first input. */
import { metricOf, type MetricId } from '../../metrics/catalogue';
import type { ShiftResult } from '../../trial/types';
import { LATE_METRICS, type LateFacts, type LateKind } from './facts';

export interface PutOff {
	metric: MetricId;
	kind: LateKind;
	/** From settling until it begins, ms; null after an input, which has no time. */
	afterMs: number | null;
}

/** The late loads of a variant under some conditions; null where there is none that went well. */
export interface LateLoads {
	postponed: LateFacts | null;
	heldBack: LateFacts | null;
}

/**
 * Better verdicts that do not stand once the late work of both variants is counted in. To each middle figure what its
 * late load added is added; the verdict stands when the variant is still better by more than the margin. One late load
 * a variant speaks of what comes, not of how much it scatters: it can take a gain away and never makes one.
 * @param results of one variant under one set of conditions, in their own unit
 */
export function putOffIn(results: readonly ShiftResult[], baseline: LateLoads, arm: LateLoads): PutOff[] {
	return results.flatMap((result) => {
		if (result.verdict !== 'better' || result.scale !== 'unit' || !result.shift) return [];
		// What comes by itself is told before what needs an input.
		return (
			putOffBy(result, baseline.postponed, arm.postponed) ?? putOffBy(result, baseline.heldBack, arm.heldBack) ?? []
		);
	});
}

function putOffBy(result: ShiftResult, baseline: LateFacts | null, arm: LateFacts | null): PutOff | null {
	const { metric, shift, margin } = result;
	if (!arm || !isLateMetric(metric)) return null;
	const added = arm.added[metric] ?? 0;
	const more = worse(metric) * (added - (baseline?.added[metric] ?? 0));
	const gain = -worse(metric) * shift!.estimate;
	if (more <= 0 || gain - more > margin) return null;
	const settled = arm.settledMs ?? 0;
	const afterMs = arm.kind === 'postponed' ? Math.max(0, arm.fromMs - settled) : null;
	return { metric, kind: arm.kind, afterMs };
}

/** 1 where more is worse. */
const worse = (metric: MetricId) => (metricOf(metric).higherIsBetter ? -1 : 1);
const isLateMetric = (metric: MetricId) => (LATE_METRICS as readonly MetricId[]).includes(metric);

/** Gains of a variant under some conditions that come back later. */
export type PutOffOf = (condition: string, arm: number, results: readonly ShiftResult[]) => PutOff[];
