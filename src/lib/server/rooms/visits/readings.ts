/** What the visitors of a site had, from their own page views: any days, any pages, put together from histograms. */
import type { DayOfVisits } from '$core/field/effect/byDays';
import { binStart, FIELD_METRICS, type FieldMetric, type Histogram } from '$core/field/histogram';
import type { DayOfKind } from '$core/field/effect/mix';
import { addHistograms, unpackHistograms, type Histograms } from '$core/field/packedHistograms';
import { readMetric, type DeviceClass, type FieldReading } from '$core/field/reading';
import { VIEWS, kindName, VISIT_KINDS } from '$core/field/tallies';
import { weightOf } from '$core/field/histogram';
import { sql, type Db } from '../../base/db/connection';
import { dayNumber, dayText, findTally, HOURS_A_DAY } from './store';

interface Row {
	day: number;
	device: DeviceClass;
	bins: Uint8Array;
}

export interface VisitQuestion {
	siteId: number;
	/** Where page views are counted; null for the whole site. */
	places: readonly string[] | null;
	/** Null for both. */
	device: DeviceClass | null;
	/** First and last day, both counted. */
	from: string;
	until: string;
}

/** Merged days, and hours that are not merged yet. */
const ROWS = `WITH asked AS (
		SELECT id FROM place WHERE site_id = @siteId AND (@places IS NULL OR path IN (SELECT value FROM json_each(@places)))
	)
	SELECT day, device, bins FROM day_histogram
		WHERE place_id IN (SELECT id FROM asked) AND (@device IS NULL OR device = @device) AND day BETWEEN @from AND @until
	UNION ALL
	SELECT hour / ${HOURS_A_DAY} AS day, device, bins FROM hour_histogram
		WHERE place_id IN (SELECT id FROM asked) AND (@device IS NULL OR device = @device)
			AND hour BETWEEN @from * ${HOURS_A_DAY} AND @until * ${HOURS_A_DAY} + ${HOURS_A_DAY - 1}`;

function rowsOf(db: Db, { siteId, places, device, from, until }: VisitQuestion): Row[] {
	const asked = { siteId, places: places && JSON.stringify(places), device };
	return sql<Row>(db, ROWS).all({ ...asked, from: dayNumber(from), until: dayNumber(until) });
}

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

/** Where page views of a site were counted. */
export function placesWithVisits(db: Db, siteId: number): string[] {
	return sql<{ path: string }>(db, 'SELECT path FROM place WHERE site_id = ?')
		.all(siteId)
		.map(({ path }) => path);
}

/** Days on which there were page views: the first and the last; null for none. */
export function daysWithVisits(db: Db, siteId: number): { first: string; last: string } | null {
	const row = sql<{ first: number | null; last: number | null }>(
		db,
		`WITH own AS (SELECT id FROM place WHERE site_id = @siteId),
			days AS (
				SELECT day FROM day_histogram WHERE place_id IN (SELECT id FROM own)
				UNION ALL SELECT hour / ${HOURS_A_DAY} FROM hour_histogram WHERE place_id IN (SELECT id FROM own)
			)
			SELECT min(day) AS first, max(day) AS last FROM days`
	).get({ siteId });
	return row?.first == null ? null : { first: dayText(row.first), last: dayText(row.last!) };
}
