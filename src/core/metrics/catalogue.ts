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
		source: 'house, recipe zafra-2'
	},
	time({
		id: 'lcp',
		name: 'Largest Contentful Paint',
		short: 'LCP',
		margin: LOAD_MARGIN,
		source: 'W3C Largest Contentful Paint',
		thresholds: { good: 2500, poor: 4000, source: WEB_DEV }
	}),
	{
		id: 'cls',
		name: 'Cumulative Layout Shift',
		short: 'CLS',
		unit: 'unitless',
		higherIsBetter: false,
		words: CALM,
		thresholds: { good: 0.1, poor: 0.25, source: WEB_DEV },
		margin: { absolute: 0.02, relative: 0 },
		source: 'W3C Layout Instability; web.dev, CLS'
	},
	time({
		id: 'tbt',
		name: 'Total Blocking Time',
		short: 'TBT',
		margin: SHORT_MARGIN,
		source: 'W3C Long Tasks; the window is house',
		thresholds: { good: 200, poor: 500, source: 'good: web.dev, TBT; poor: house' }
	}),
	amount({
		id: 'wire',
		name: 'Bytes transferred',
		short: 'Bytes',
		unit: 'bytes',
		margin: { absolute: 10_000, relative: 0.02 },
		source: 'RFC 9110, RFC 9112'
	}),
	time({
		id: 'inp',
		name: 'Interaction to Next Paint',
		short: 'INP',
		margin: { absolute: 25, relative: 0 },
		source: 'W3C Event Timing; web.dev, INP',
		thresholds: { good: 200, poor: 500, source: WEB_DEV },
		words: RESPONSE
	}),
	time({
		id: 'ttfb',
		name: 'Time to First Byte',
		short: 'TTFB',
		margin: SHORT_MARGIN,
		source: 'W3C Navigation Timing 2; web.dev, TTFB',
		thresholds: {
			good: 800,
			poor: 1800,
			source: WEB_DEV
		}
	}),
	time({
		id: 'fcp',
		name: 'First Contentful Paint',
		short: 'FCP',
		margin: LOAD_MARGIN,
		source: 'W3C Paint Timing',
		thresholds: {
			good: 1800,
			poor: 3000,
			source: WEB_DEV
		}
	}),
	time({ id: 'start', name: 'First change on screen', short: 'First change', margin: LOAD_MARGIN, source: 'practice' }),
	time({
		id: 'si',
		name: 'Speed Index',
		short: 'SI',
		margin: LOAD_MARGIN,
		source: 'published definition, from memory',
		thresholds: { good: 2800, poor: 5200, source: 'house' }
	}),
	time({ id: 'vc', name: 'Screen finished', short: 'Finished', margin: LOAD_MARGIN, source: 'practice' }),
	time({
		id: 'dcl',
		name: 'DOMContentLoaded',
		short: 'DCL',
		margin: LOAD_MARGIN,
		source: 'HTML; W3C Navigation Timing 2'
	}),
	time({
		id: 'onload',
		name: 'Load event',
		short: 'Load',
		margin: LOAD_MARGIN,
		source: 'HTML; W3C Navigation Timing 2'
	}),
	time({
		id: 'full',
		name: 'Fully loaded',
		short: 'Full',
		margin: LOAD_MARGIN,
		source: 'practice; the numbers are house'
	}),
	amount({
		id: 'decoded',
		name: 'Bytes decoded',
		short: 'Decoded',
		unit: 'bytes',
		margin: { absolute: 10_000, relative: 0.02 },
		source: 'RFC 9110'
	}),
	amount({
		id: 'requests',
		name: 'Requests',
		short: 'Requests',
		unit: 'count',
		margin: { absolute: 2, relative: 0 },
		source: 'practice'
	}),
	amount({
		id: 'elements',
		name: 'DOM elements',
		short: 'Elements',
		unit: 'count',
		margin: { absolute: 20, relative: 0.05 },
		source: 'WHATWG DOM'
	}),
	amount({
		id: 'depth',
		name: 'DOM depth',
		short: 'Depth',
		unit: 'count',
		margin: { absolute: 3, relative: 0 },
		source: 'WHATWG DOM'
	}),
	amount({
		id: 'unusedJs',
		name: 'Script never run',
		short: 'Unused JS',
		unit: 'bytes',
		margin: { absolute: 10_000, relative: 0.05 },
		source: 'CDP coverage'
	}),
	amount({
		id: 'unusedCss',
		name: 'Style never matched',
		short: 'Unused CSS',
		unit: 'bytes',
		margin: { absolute: 10_000, relative: 0.05 },
		source: 'CDP coverage'
	}),
	time({ id: 'stepShown', name: 'Step until its content', short: 'Step shown', margin: LOAD_MARGIN, source: 'house' }),
	time({ id: 'stepQuiet', name: 'Step until quiet', short: 'Step quiet', margin: LOAD_MARGIN, source: 'house' })
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
