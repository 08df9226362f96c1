/** Histograms of visits over days. */
import { sql, type Db } from '../../../base/db/connection';
import type { DeviceClass } from '$core/field/reading';
import { HOURS_A_DAY } from './store';

/** Merged days, and hours that are not merged yet. */
export const ROWS = `WITH asked AS (
		SELECT id FROM place WHERE site_id = @siteId AND (@buckets IS NULL OR path IN (SELECT value FROM json_each(@buckets)))
	)
	SELECT day, device, bins FROM day_histogram
		WHERE place_id IN (SELECT id FROM asked) AND (@device IS NULL OR device = @device) AND day BETWEEN @from AND @until
	UNION ALL
	SELECT hour / ${HOURS_A_DAY} AS day, device, bins FROM hour_histogram
		WHERE place_id IN (SELECT id FROM asked) AND (@device IS NULL OR device = @device)
			AND hour BETWEEN @from * ${HOURS_A_DAY} AND @until * ${HOURS_A_DAY} + ${HOURS_A_DAY - 1}`;

/** Where page views of a site were counted. */
export function bucketsWithVisits(db: Db, siteId: number): string[] {
	return sql<{ path: string }>(db, 'SELECT path FROM place WHERE site_id = ?')
		.all(siteId)
		.map(({ path }) => path);
}

export interface HistogramRow {
	day: number;
	device: DeviceClass;
	bins: Uint8Array;
}

interface HistogramQuestion {
	siteId: number;
	buckets: readonly string[] | null;
	device: DeviceClass | null;
	/** First and last day by their numbers. */
	from: number;
	until: number;
}

export const histogramRows = (db: Db, { buckets, ...question }: HistogramQuestion): HistogramRow[] =>
	sql<HistogramRow>(db, ROWS).all({ ...question, buckets: buckets && JSON.stringify(buckets) });

/** First and last day with page views, by their numbers. */
export const daySpan = (db: Db, siteId: number) =>
	sql<{ first: number | null; last: number | null }>(
		db,
		`WITH own AS (SELECT id FROM place WHERE site_id = @siteId),
			days AS (
				SELECT day FROM day_histogram WHERE place_id IN (SELECT id FROM own)
				UNION ALL SELECT hour / ${HOURS_A_DAY} FROM hour_histogram WHERE place_id IN (SELECT id FROM own)
			)
			SELECT min(day) AS first, max(day) AS last FROM days`
	).get({ siteId });
