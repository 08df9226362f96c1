/** Margins as rows of a form, and back; names of their fields. */
import { METRICS, metricOf, type MetricId, type Unit } from '$core/metrics/catalogue';

export interface MarginRow {
	metric: string;
	/** In the metric's unit. */
	absolute: number | null;
	percent: number | null;
}

const UNITS: Record<Unit, string> = { ms: 'ms', bytes: 'bytes', count: '', points: 'points', unitless: '' };

/** "At least, ms"; what has no unit stands without one. */
export const withUnit = (label: string, metric: string): string =>
	[label, UNITS[metricOf(metric as MetricId).unit]].filter(Boolean).join(', ');

/** A row of the first metric that has none yet, as the house has it; null when all have one. */
export function freeMarginRow(rows: readonly Pick<MarginRow, 'metric'>[]): MarginRow | null {
	const free = METRICS.find(({ id }) => rows.every(({ metric }) => metric !== id));
	return free ? houseMargin(free.id) : null;
}

/** What a row asks for when another metric is chosen: what the house has for that one. */
export function houseMargin(metric: string): MarginRow {
	const { absolute, relative } = metricOf(metric as MetricId).margin;
	return { metric, absolute, percent: relative * 100 };
}
