/**
 * Who came before and after a release: a campaign that brings visitors with slow lines makes no page slower. The visits
 * after it are weighted as those before came (direct standardisation); what that takes off is the mix's, not the
 * release's.
 */
import type { FieldMetric, Histogram } from '../histogram';
import { binStart, mergeHistograms, shareBelow, weightOf } from '../histogram';
import { VISIT_KINDS, type VisitKind } from '../tallies';
import type { DeviceClass } from '../reading';
import type { Sides, VisitMix } from './types';

/** Page views of one kind on one day. */
export interface DayOfKind {
	day: string;
	device: DeviceClass;
	kind: VisitKind;
	histogram: Histogram;
}

const SHARE = 0.75;
/** Share of the visits of a side that must come from kinds that the other side has, too. */
const LEAST_SHARED = 0.8;

/** @returns what weighting adds to the step of the logarithm; null where kinds were not counted on both sides */
export function mixOf(
	metric: FieldMetric,
	days: readonly DayOfKind[],
	sides: Pick<Sides, 'before' | 'after'>
): { kinds: VisitMix['kinds']; shift: number } | null {
	const own = (side: readonly string[]) => {
		const dates = new Set(side);
		return VISIT_KINDS.map((kind) =>
			mergeHistograms(
				days.filter((bucket) => bucket.kind === kind && dates.has(bucket.day)).map(({ histogram }) => histogram)
			)
		);
	};
	const [before, after] = [own(sides.before), own(sides.after)];
	const sizes = [before, after].map((all) => all.map(weightOf)) as [number[], number[]];
	const [all, allAfter] = sizes.map((bucket) => bucket.reduce((sum, size) => sum + size, 0)) as [number, number];
	if (!all || !allAfter) return null;
	const kinds = VISIT_KINDS.map((kind, i) => ({
		kind,
		before: sizes[0][i]! / all,
		after: sizes[1][i]! / allAfter
	})).filter((bucket) => bucket.before + bucket.after > 0);
	const shared = kinds.filter((bucket) => bucket.before > 0 && bucket.after > 0);
	if (shared.reduce((sum, bucket) => sum + bucket.before, 0) < LEAST_SHARED) return null;
	const weighted = VISIT_KINDS.map((_, i) => {
		const [size, wanted] = [sizes[1][i]!, sizes[0][i]!];
		return scaled(after[i]!, size > 0 ? wanted / size : 0);
	});
	const [asCame, asBefore] = [mergeHistograms(after), mergeHistograms(weighted)].map((bucket) =>
		logPercentile(metric, bucket)
	) as [number, number];
	return { kinds: kinds.sort((a, b) => b.before - a.before), shift: asBefore - asCame };
}

const HALVINGS = 40;

/** Between the ends of the histogram by halving: whole bins would be too coarse for a difference. */
function logPercentile(metric: FieldMetric, histogram: Histogram): number {
	const bins = [...histogram.keys()];
	const smallest = Math.log(binStart(metric, 0) / 10);
	const start = (bin: number) => Math.max(smallest, Math.log(Math.max(binStart(metric, bin), Number.MIN_VALUE)));
	let [low, high] = [start(Math.min(...bins)), start(Math.max(...bins) + 1)];
	for (let i = 0; i < HALVINGS; i++) {
		const middle = (low + high) / 2;
		if (shareBelow(metric, histogram, Math.exp(middle)) < SHARE) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}

const scaled = (histogram: Histogram, by: number): Histogram =>
	new Map([...histogram].map(([bin, weight]) => [bin, weight * by]));
