/** Readings of real visitors: kept for ever, asked for once. */
import type { DeviceClass, FieldReading } from '$core/field/reading';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export interface StoredReading {
	pageId: number | null;
	device: DeviceClass;
	source: FieldReading['source'];
	from: string;
	until: string;
	/** Null: the source had too few visits. */
	metrics: FieldReading['metrics'] | null;
}

interface Row {
	page_id: number | null;
	device: DeviceClass;
	source: FieldReading['source'];
	from_day: string;
	until_day: string;
	metrics: string | null;
}

const asReading = (row: Row): StoredReading => ({
	pageId: row.page_id,
	device: row.device,
	source: row.source,
	from: row.from_day,
	until: row.until_day,
	metrics: row.metrics === null ? null : (JSON.parse(row.metrics) as FieldReading['metrics'])
});

const withoutBins = (metrics: FieldReading['metrics']) =>
	Object.fromEntries(Object.entries(metrics).map(([id, reading]) => [id, { ...reading, bins: [] }]));

/** A reading of the same window and source is replaced. */
export function saveReading(db: Db, siteId: number, reading: StoredReading): void {
	sql(
		db,
		`INSERT INTO field_reading (site_id, page_id, device, source, from_day, until_day, metrics, is_empty, lcp, figures, fetched_at)
			VALUES (@siteId, @pageId, @device, @source, @from, @until, @metrics, @isEmpty, @lcp, @figures, @now)
			ON CONFLICT (site_id, coalesce(page_id, 0), device, source, until_day)
			DO UPDATE SET metrics = excluded.metrics, is_empty = excluded.is_empty, lcp = excluded.lcp, figures = excluded.figures, fetched_at = excluded.fetched_at`
	).run({
		...reading,
		siteId,
		metrics: reading.metrics && JSON.stringify(reading.metrics),
		isEmpty: Number(reading.metrics === null),
		lcp: reading.metrics?.lcp?.p75 ?? null,
		figures: reading.metrics && JSON.stringify(withoutBins(reading.metrics)),
		now: nowIso()
	});
}

/** Whether a window was asked for already; a panel that had too few visits is not asked again. */
export function hasReading(
	db: Db,
	siteId: number,
	{ pageId, device, source, until }: Omit<StoredReading, 'from' | 'metrics'>
): boolean {
	const row = sql(
		db,
		`SELECT 1 FROM field_reading WHERE site_id = @siteId AND coalesce(page_id, 0) = coalesce(@pageId, 0)
			AND device = @device AND source = @source AND until_day = @until`
	).get({ siteId, pageId, device, source, until });
	return row !== undefined;
}

/** Of a page, or of the origin, on a device; oldest first. */
export function readingsOf(db: Db, siteId: number, pageId: number | null, device: DeviceClass): StoredReading[] {
	return sql<Row>(
		db,
		`SELECT * FROM field_reading WHERE site_id = @siteId AND coalesce(page_id, 0) = coalesce(@pageId, 0)
			AND device = @device ORDER BY until_day`
	)
		.all({ siteId, pageId, device })
		.map(asReading);
}

/** A window without its figures: enough to choose what is shown, and to draw LCP over time. */
export interface WindowLine {
	id: number;
	pageId: number | null;
	device: DeviceClass;
	source: FieldReading['source'];
	from: string;
	until: string;
	/** The source had too few visits. */
	isEmpty: boolean;
	/** LCP at the 75th percentile, ms. */
	lcp: number | null;
}

interface LineRow extends Omit<Row, 'metrics'> {
	id: number;
	is_empty: number;
	lcp: number | null;
}

/** All of a site, oldest first. */
export function windowLinesOfSite(db: Db, siteId: number): WindowLine[] {
	return sql<LineRow>(
		db,
		`SELECT id, page_id, device, source, from_day, until_day, is_empty, lcp
			FROM field_reading WHERE site_id = ? ORDER BY until_day`
	)
		.all(siteId)
		.map((row) => ({
			id: row.id,
			pageId: row.page_id,
			device: row.device,
			source: row.source,
			from: row.from_day,
			until: row.until_day,
			isEmpty: row.is_empty === 1,
			lcp: row.lcp
		}));
}

/** Figures of some readings by their number, without the bins of their histograms. */
export function figuresOfReadings(db: Db, ids: readonly number[]): Map<number, FieldReading['metrics']> {
	const rows = sql<{ id: number; figures: string }>(
		db,
		'SELECT id, figures FROM field_reading WHERE id IN (SELECT value FROM json_each(?)) AND figures IS NOT NULL'
	).all(JSON.stringify(ids));
	return new Map(rows.map(({ id, figures }) => [id, JSON.parse(figures) as FieldReading['metrics']]));
}

/** The last day of the newest window that was asked for; null before the first. */
export function newestWindow(db: Db, clientId: number): string | null {
	const row = sql<{ until: string | null }>(
		db,
		`SELECT max(until_day) AS until FROM field_reading JOIN site ON site.id = site_id
			WHERE client_id = ? AND source = 'panel'`
	).get(clientId);
	return row?.until ?? null;
}
