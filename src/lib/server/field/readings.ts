/** Readings of real visitors: kept for ever, asked for once. */
import type { DeviceClass, FieldReading } from '$core/field/reading';
import { nowIso, sql, type Db } from '../db/connection';

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

/** A reading of the same window and source is replaced. */
export function saveReading(db: Db, siteId: number, reading: StoredReading): void {
	sql(
		db,
		`INSERT INTO field_reading (site_id, page_id, device, source, from_day, until_day, metrics, fetched_at)
			VALUES (@siteId, @pageId, @device, @source, @from, @until, @metrics, @now)
			ON CONFLICT (site_id, coalesce(page_id, 0), device, source, until_day)
			DO UPDATE SET metrics = excluded.metrics, fetched_at = excluded.fetched_at`
	).run({
		...reading,
		siteId,
		metrics: reading.metrics && JSON.stringify(reading.metrics),
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

/** All of a site, oldest first. */
export function readingsOfSite(db: Db, siteId: number): StoredReading[] {
	return sql<Row>(db, 'SELECT * FROM field_reading WHERE site_id = ? ORDER BY until_day').all(siteId).map(asReading);
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
