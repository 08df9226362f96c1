/** What the visitors of a site had, from their own page views: any days, any pages, put together from histograms. */
import type { DayOfVisits } from '$core/field/effect/byDays';
import { binStart, FIELD_METRICS, type FieldMetric, type Histogram, weightOf } from '$core/field/histogram';
import type { DayOfKind } from '$core/field/effect/mix';
import { addHistograms, unpackHistograms, type Histograms } from '$core/field/packedHistograms';
import { readMetric, type DeviceClass, type FieldReading } from '$core/field/reading';
import { VIEWS, kindName, VISIT_KINDS } from '$core/field/tallies';
import type { Db } from '../../base/db/connection';
import { dayNumber, dayText } from './store';
import { findTally } from './queries/store';
import { histogramRows, daySpan } from './queries/readings';

export interface VisitQuestion {
	siteId: number;
	/** Where page views are counted; null for the whole site. */
	buckets: readonly string[] | null;
	/** Null for both. */
	device: DeviceClass | null;
	/** First and last day, both counted. */
	from: string;
	until: string;
}

const rowsOf = (db: Db, { from, until, ...question }: VisitQuestion) =>
	histogramRows(db, { ...question, from: dayNumber(from), until: dayNumber(until) });

/** All histograms of some days together, by number of their name. */
export function histogramsOver(db: Db, question: VisitQuestion): Histograms {
	const all: Histograms = new Map();
	for (const { bins } of rowsOf(db, question)) addHistograms(all, unpackHistograms(bins));
	return all;
}

/** One of them by its name; empty where nothing was counted under it. */
export function histogramOfName(db: Db, histograms: Histograms, name: string): Histogram {
	const id = findTally(db, name);
	return (id === null ? undefined : histograms.get(id)) ?? new Map();
}

/** A metric day by day and device by device. */
export function daysOf(db: Db, metric: FieldMetric, question: Omit<VisitQuestion, 'device'>): DayOfVisits[] {
	const id = findTally(db, metric);
	if (id === null) return [];
	const days = new Map<string, { day: string; device: DeviceClass; histograms: Histograms }>();
	for (const { day, device, bins } of rowsOf(db, { ...question, device: null })) {
		const key = `${day}/${device}`;
		const own = days.get(key) ?? { day: dayText(day), device, histograms: new Map() };
		days.set(key, own);
		addHistograms(own.histograms, unpackHistograms(bins));
	}
	return [...days.values()].map(({ day, device, histograms }) => ({
		day,
		device,
		histogram: histograms.get(id) ?? new Map()
	}));
}

/** The same kind of visit by kind of visit, for days on which kinds were counted. */
export function daysByKind(db: Db, metric: FieldMetric, question: Omit<VisitQuestion, 'device'>): DayOfKind[] {
	const ids = VISIT_KINDS.flatMap((kind) => {
		const id = findTally(db, kindName(metric, kind));
		return id === null ? [] : [{ kind, id }];
	});
	return rowsOf(db, { ...question, device: null }).flatMap(({ day, device, bins }) => {
		const histograms = unpackHistograms(bins);
		return ids.flatMap(({ kind, id }): DayOfKind[] => {
			const histogram = histograms.get(id);
			return histogram ? [{ day: dayText(day), device, kind, histogram }] : [];
		});
	});
}

/** Page views below which a window has no percentile worth a word (house). */
const LEAST_VIEWS = 200;

/** @returns null for too few page views */
export function readingOver(db: Db, question: VisitQuestion): FieldReading['metrics'] | null {
	const histograms = histogramsOver(db, question);
	if (weightOf(histogramOfName(db, histograms, VIEWS)) < LEAST_VIEWS) return null;
	const metrics: FieldReading['metrics'] = {};
	for (const metric of FIELD_METRICS) {
		const histogram = histogramOfName(db, histograms, metric);
		const read = readMetric(metric, histogram);
		const all = weightOf(histogram);
		if (!read || all < LEAST_VIEWS) continue;
		const bins = [...histogram].sort(([a], [b]) => a - b);
		metrics[metric] = {
			...read,
			bins: bins.map(([bin, weight]): [number, number] => [binStart(metric, bin), weight / all])
		};
	}
	return metrics;
}

/** Days on which there were page views: the first and the last; null for none. */
export function daysWithVisits(db: Db, siteId: number): { first: string; last: string } | null {
	const row = daySpan(db, siteId);
	return row?.first == null ? null : { first: dayText(row.first), last: dayText(row.last!) };
}
