/** What real visitors had: of a page or a whole origin, on a device class, over a window. */
import * as v from 'valibot';
import { metricOf } from '../metrics/catalogue';
import { quantileOf, shareBelow, type FieldMetric, type Histogram } from './histogram';

export const DEVICE_CLASSES = ['phone', 'desktop'] as const;
export type DeviceClass = (typeof DEVICE_CLASSES)[number];
export const SCOPES = ['page', 'origin'] as const;
export type Scope = (typeof SCOPES)[number];
export const SOURCES = ['panel', 'visits', 'csv'] as const;

/** Days of a window that outside panels use. */
export const WINDOW_DAYS = 28;

const share = v.pipe(
	v.number('A share is a number.'),
	v.minValue(0, 'A share is at least 0.'),
	v.maxValue(1.000001, 'A share is at most 1.')
);

export const MetricReading = v.object({
	/** In the metric's unit. */
	p75: v.pipe(
		v.number('The 75th percentile is a number.'),
		v.finite('The 75th percentile is a number.'),
		v.minValue(0, 'The 75th percentile is not negative.')
	),
	/** Good, needs improvement, poor; they add up to 1. Null where the source has percentiles alone. */
	shares: v.nullable(
		v.pipe(
			v.tuple([share, share, share]),
			v.check(
				(shares) => Math.abs(shares[0] + shares[1] + shares[2] - 1) < 0.02,
				'The three shares do not add up to all visits.'
			)
		)
	),
	/** Beginning of each bin and its share of the visits, in order; empty where the source has none. */
	bins: v.array(v.tuple([v.number(), share]))
});
export type MetricReading = v.InferOutput<typeof MetricReading>;

const day = v.pipe(v.string('A day is text.'), v.regex(/^\d{4}-\d{2}-\d{2}$/, 'Write a day as 2026-11-27.'));

export const FieldReading = v.object({
	scope: v.picklist(SCOPES, 'The scope is “page” or “origin”.'),
	/** Address of the page, or the origin. */
	url: v.string(),
	device: v.picklist(DEVICE_CLASSES, 'The device is “phone” or “desktop”.'),
	from: day,
	until: day,
	source: v.picklist(SOURCES, 'The source is “panel”, “visits” or “csv”.'),
	metrics: v.object({
		lcp: v.optional(MetricReading),
		inp: v.optional(MetricReading),
		cls: v.optional(MetricReading),
		fcp: v.optional(MetricReading),
		ttfb: v.optional(MetricReading)
	})
});
export type FieldReading = v.InferOutput<typeof FieldReading>;

/** What a histogram says of a metric: p75 and the three shares by its thresholds. @returns null for no visits */
export function readMetric(
	metric: FieldMetric,
	histogram: Histogram
): { p75: number; shares: [good: number, needsImprovement: number, poor: number] } | null {
	const p75 = quantileOf(metric, histogram, 0.75);
	const { thresholds } = metricOf(metric);
	if (p75 === null || !thresholds) return null;
	const good = shareBelow(metric, histogram, thresholds.good);
	const poor = 1 - shareBelow(metric, histogram, thresholds.poor);
	return { p75, shares: [good, 1 - good - poor, poor] };
}
