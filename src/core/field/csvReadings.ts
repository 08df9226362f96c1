/** Readings from a table of some program: a line for a page or an origin, a device and a window. */
import { parseAmount, type DecimalMark } from '../formats/amounts';
import { normaliseAddress } from '../pages/address';
import { bandOf } from '../metrics/catalogue';
import { FIELD_METRICS, type FieldMetric } from './histogram';
import { MOST_VALUE } from './visit';
import { windowStart } from './windows';
import type { DeviceClass, FieldReading, MetricReading, Scope } from './reading';

export const READING_FIELDS = ['address', 'device', 'until', ...FIELD_METRICS] as const;
export type ReadingField = (typeof READING_FIELDS)[number];
/** Places of the columns; null where the table has none. */
export type ReadingColumns = { address: number } & Record<Exclude<ReadingField, 'address'>, number | null>;

const NAMES: Record<ReadingField, RegExp> = {
	address: /\b(url|page|origin|address|p[aá]gina|direcci[oó]n)\b/i,
	device: /\b(device|form.?factor|dispositivo)\b/i,
	until: /\b(until|date|day|end|last|fecha|hasta)\b/i,
	lcp: /lcp|largest.?contentful/i,
	inp: /\binp\b|interaction/i,
	cls: /cls|layout.?shift/i,
	fcp: /fcp|first.?contentful/i,
	ttfb: /ttfb|first.?byte/i
};

/** The columns that their names suggest; null when none looks like addresses. */
export function guessReadingColumns(head: readonly string[]): ReadingColumns | null {
	const find = (field: ReadingField) => {
		const at = head.findIndex((name) => NAMES[field].test(name));
		return at < 0 ? null : at;
	};
	const address = find('address');
	const others = READING_FIELDS.filter((field) => field !== 'address').map((field) => [field, find(field)]);
	return address === null ? null : { address, ...(Object.fromEntries(others) as Omit<ReadingColumns, 'address'>) };
}

/** Why a line was left aside. */
export type ReadingFault = 'no-address' | 'no-device' | 'no-day' | 'no-figures' | 'implausible';

export interface ReadLine {
	scope: Scope;
	url: string;
	device: DeviceClass;
	from: string;
	until: string;
	metrics: FieldReading['metrics'];
}

/** A time below this is in seconds: no page paints within 60 ms at the 75th percentile (house). */
const LEAST_MS = 60;

/** @param usual day for tables without one @returns the reading, or why there is none */
export function readingOfLine(
	cells: readonly string[],
	columns: ReadingColumns,
	mark: DecimalMark,
	usual: string
): ReadLine | { fault: ReadingFault } {
	const cell = (field: ReadingField) => (columns[field] === null ? '' : (cells[columns[field]] ?? '').trim());
	const address = normaliseAddress(cell('address'));
	if ('fault' in address) return { fault: 'no-address' };
	const device = deviceOf(cell('device'));
	if (!device) return { fault: 'no-device' };
	const until = columns.until === null ? usual : dayOf(cell('until'));
	if (!until) return { fault: 'no-day' };
	const metrics: FieldReading['metrics'] = {};
	for (const metric of FIELD_METRICS) {
		const reading = metricOf(metric, cell(metric), mark);
		if (reading === 'implausible') return { fault: 'implausible' };
		if (reading) metrics[metric] = reading;
	}
	if (!Object.keys(metrics).length) return { fault: 'no-figures' };
	// An origin is written without a path: the front page has its slash.
	const isOrigin = /^https?:\/\/[^/]+$/i.test(cell('address'));
	return { scope: isOrigin ? 'origin' : 'page', url: address.url, device, from: windowStart(until), until, metrics };
}

function deviceOf(text: string): DeviceClass | null {
	if (/phone|mobile|m[oó]vil/i.test(text)) return 'phone';
	return /desktop|computer|escritorio/i.test(text) ? 'desktop' : null;
}

/** "2026-11-20", or a moment of that day; other forms are ambiguous. */
function dayOf(text: string): string | null {
	const day = text.slice(0, 10);
	return /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(Date.parse(day)) ? day : null;
}

/** A table has percentiles, not shares: of them nothing is known. */
function metricOf(metric: FieldMetric, text: string, mark: DecimalMark): MetricReading | 'implausible' | null {
	const value = parseAmount(text.replace(/\s*(ms|s)$/i, ''), mark);
	if (value === null || value < 0) return null;
	const isSeconds =
		metric !== 'cls' && value > 0 && (/\ds$|\ds\b/i.test(text) || value < LEAST_MS) && !/ms$/i.test(text);
	const p75 = isSeconds ? value * 1000 : value;
	if (p75 > MOST_VALUE[metric] || bandOf(metric, p75) === null) return 'implausible';
	return { p75, shares: null, bins: [] };
}
