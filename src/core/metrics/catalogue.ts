/**
 * The catalogue of metrics: names, units, thresholds with their sources, and margins.
 *
 * Thresholds marked "web.dev" are the published Core Web Vitals and companion thresholds
 * ("Defining the Core Web Vitals metrics thresholds" and the page of each metric). Those marked
 * "house" are Zafra's own, where no standard publishes any. Margins are all "house" and can be edited.
 */

import { amount, time } from './define';
import type { JudgementWords, Margin, Metric, MetricId } from './metric';

export type { JudgementWords, Margin, Metric, MetricId, Thresholds, Unit } from './metric';

const CALM: JudgementWords = ['more stable', 'less stable'];
const RESPONSE: JudgementWords = ['more responsive', 'less responsive'];
const LOAD_MARGIN: Margin = { absolute: 100, relative: 0.05 };
const SHORT_MARGIN: Margin = { absolute: 50, relative: 0.1 };
const WEB_DEV = 'web.dev, metric thresholds';

/** Every metric, in the order in which tables show them. */
export const METRICS = [
	{
		id: 'score',
		name: 'Score',
		short: 'Score',
		unit: 'points',
		higherIsBetter: true,
		words: ['better', 'worse'],
		thresholds: null,
		margin: { absolute: 3, relative: 0 },
		definition: '0 to 100, from the metrics by a versioned recipe',
		source: 'house, recipe zafra-2'
	},
	time(
		'lcp',
		'Largest Contentful Paint',
		'LCP',
		LOAD_MARGIN,
		'When the largest image or text block was painted: the last candidate before the first input or the end of the load',
		'W3C Largest Contentful Paint',
		{ good: 2500, poor: 4000, source: WEB_DEV }
	),
	{
		id: 'cls',
		name: 'Cumulative Layout Shift',
		short: 'CLS',
		unit: 'unitless',
		higherIsBetter: false,
		words: CALM,
		thresholds: { good: 0.1, poor: 0.25, source: WEB_DEV },
		margin: { absolute: 0.02, relative: 0 },
		definition:
			'Largest session window of layout shifts without recent input; a window ends at a gap of 1 s or a length of 5 s',
		source: 'W3C Layout Instability; web.dev, CLS'
	},
	time(
		'tbt',
		'Total Blocking Time',
		'TBT',
		SHORT_MARGIN,
		'Sum over long tasks of the part beyond 50 ms, tasks clipped to the time from FCP until the page settled',
		'W3C Long Tasks; the window is house',
		{ good: 200, poor: 500, source: 'good: web.dev, TBT; poor: house' }
	),
	amount(
		'wire',
		'Bytes transferred',
		'Bytes',
		'bytes',
		{ absolute: 10_000, relative: 0.02 },
		'Headers and bodies of all responses as they crossed the wire',
		'RFC 9110, RFC 9112'
	),
	time(
		'inp',
		'Interaction to Next Paint',
		'INP',
		{ absolute: 25, relative: 0 },
		'The worst interaction, leaving out one per 50 interactions',
		'W3C Event Timing; web.dev, INP',
		{ good: 200, poor: 500, source: WEB_DEV },
		RESPONSE
	),
	time(
		'ttfb',
		'Time to First Byte',
		'TTFB',
		SHORT_MARGIN,
		'Until the first byte of the document arrived',
		'W3C Navigation Timing 2; web.dev, TTFB',
		{
			good: 800,
			poor: 1800,
			source: WEB_DEV
		}
	),
	time(
		'fcp',
		'First Contentful Paint',
		'FCP',
		LOAD_MARGIN,
		'When the first text or image was painted',
		'W3C Paint Timing',
		{
			good: 1800,
			poor: 3000,
			source: WEB_DEV
		}
	),
	time(
		'start',
		'First change on screen',
		'First change',
		LOAD_MARGIN,
		'First frame that differs from the blank page',
		'practice'
	),
	time(
		'si',
		'Speed Index',
		'SI',
		LOAD_MARGIN,
		'Integral over time of the share of the page that is not yet painted, by colour-histogram distance to the last frame',
		'published definition, from memory',
		{ good: 2800, poor: 5200, source: 'house' }
	),
	time(
		'vc',
		'Screen finished',
		'Finished',
		LOAD_MARGIN,
		'First frame from which visual progress stays at 99 % or more',
		'practice'
	),
	time(
		'dcl',
		'DOMContentLoaded',
		'DCL',
		LOAD_MARGIN,
		'The document was parsed and its deferred scripts had run',
		'HTML; W3C Navigation Timing 2'
	),
	time('onload', 'Load event', 'Load', LOAD_MARGIN, 'The load event began', 'HTML; W3C Navigation Timing 2'),
	time(
		'full',
		'Fully loaded',
		'Full',
		LOAD_MARGIN,
		'End of the last response before the network was quiet for 2 s after the load event',
		'practice; the numbers are house'
	),
	amount(
		'decoded',
		'Bytes decoded',
		'Decoded',
		'bytes',
		{ absolute: 10_000, relative: 0.02 },
		'Bodies of all responses after decoding',
		'RFC 9110'
	),
	amount(
		'requests',
		'Requests',
		'Requests',
		'count',
		{ absolute: 2, relative: 0 },
		'Requests that the page sent to the network',
		'practice'
	),
	amount(
		'elements',
		'DOM elements',
		'Elements',
		'count',
		{ absolute: 20, relative: 0.05 },
		'Elements in the finished document',
		'WHATWG DOM'
	),
	amount(
		'depth',
		'DOM depth',
		'Depth',
		'count',
		{ absolute: 3, relative: 0 },
		'Longest chain of nested elements',
		'WHATWG DOM'
	),
	amount(
		'unusedJs',
		'Script never run',
		'Unused JS',
		'bytes',
		{ absolute: 10_000, relative: 0.05 },
		'Script bytes that had not run when the page settled',
		'CDP coverage'
	),
	amount(
		'unusedCss',
		'Style never matched',
		'Unused CSS',
		'bytes',
		{ absolute: 10_000, relative: 0.05 },
		'Style bytes that matched nothing when the page settled',
		'CDP coverage'
	),
	time(
		'stepShown',
		'Step until its content',
		'Step shown',
		LOAD_MARGIN,
		'From an act of the steps (open, click, type, scroll) until what the next step awaits was there, over all of them',
		'house'
	),
	time(
		'stepQuiet',
		'Step until quiet',
		'Step quiet',
		LOAD_MARGIN,
		'From an act of the steps until the last request, long task or shift that it set off, over all of them',
		'house'
	)
] as const satisfies readonly Metric[];

/** Figures of one load, by metric; null is "not measured", never zero. */
export type Figures = Record<MetricId, number | null>;

/** Measured only where a visitor does something. */
export const isStepMetric = (id: MetricId): boolean => id === 'stepShown' || id === 'stepQuiet';

export const METRIC_IDS: readonly MetricId[] = METRICS.map((metric) => metric.id);

const BY_ID = new Map<string, Metric>(METRICS.map((metric) => [metric.id, metric]));

/** The metric of that id. @throws RangeError for an unknown id. */
export function metricOf(id: string): Metric {
	const metric = BY_ID.get(id);
	if (!metric) throw new RangeError(`There is no metric "${id}".`);
	return metric;
}

export function isMetricId(id: string): id is MetricId {
	return BY_ID.has(id);
}

/** Figures with nothing measured yet. */
export function noFigures(): Figures {
	return Object.fromEntries(METRIC_IDS.map((id) => [id, null])) as Figures;
}

/** The metrics a new trial decides on unless the analyst chooses others. House. */
export const DEFAULT_PRIMARY: readonly MetricId[] = ['score', 'lcp', 'cls', 'tbt', 'wire'];

export type Band = 'good' | 'needs improvement' | 'poor';

/** The band of a value: good at or below the first threshold, poor above the second; null without thresholds. */
export function bandOf(id: string, value: number | null): Band | null {
	if (value === null) return null;
	if (id === 'score') return value >= 75 ? 'good' : value < 25 ? 'poor' : 'needs improvement';
	const { thresholds } = metricOf(id);
	if (!thresholds) return null;
	return value <= thresholds.good ? 'good' : value > thresholds.poor ? 'poor' : 'needs improvement';
}

/**
 * The margin of a metric in its own unit: the larger of its absolute size and its share of the baseline.
 * @param baseline median of the baseline arm, in the metric's unit
 * @param margins those that differ from the house's
 */
export function marginFor(id: string, baseline: number, margins: Partial<Record<MetricId, Margin>> = {}): number {
	const { absolute, relative } = margins[id as MetricId] ?? metricOf(id).margin;
	return Math.max(absolute, relative * Math.abs(baseline));
}
