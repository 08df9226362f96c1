/** Hours that become days, and days that go. */
import { addHistograms, packHistograms, unpackHistograms, type Histograms } from '$core/field/packedHistograms';
import { RAW_DAYS } from '$core/field/visitSettings';
import type { DeviceClass } from '$core/field/reading';
import { sql, type Db } from '../../../base/db/connection';
import { DAY_MS, HOURS_A_DAY } from './store';

interface HourRow {
	place_id: number;
	device: DeviceClass;
	hour: number;
	bins: Uint8Array;
}

/** Page views that go at once in one transaction: beacons wait no longer than that takes. */
const MOST_AT_ONCE = 5000;

/** Cells of a page and device that are merged in one transaction. */
const MOST_CELLS = 200;

/** The hours of the oldest day that is to be merged; each cell whole, so that nothing is counted twice or lost. */
export function mergeHours(db: Db, now: number): boolean {
	const firstKept = (Math.floor(now / DAY_MS) - RAW_DAYS) * HOURS_A_DAY;
	const cells = sql<{ place_id: number; device: DeviceClass; day: number }>(
		db,
		`SELECT DISTINCT place_id, device, hour / ${HOURS_A_DAY} AS day FROM hour_histogram WHERE hour < ? LIMIT ${MOST_CELLS}`
	).all(firstKept);
	if (!cells.length) return false;
	db.transaction(() => {
		for (const { place_id: bucket, device, day } of cells) mergeDay(db, bucket, device, day);
	}).immediate();
	return cells.length === MOST_CELLS;
}

function mergeDay(db: Db, bucket: number, device: DeviceClass, day: number): void {
	const range = [bucket, device, day * HOURS_A_DAY, (day + 1) * HOURS_A_DAY] as const;
	const hours = sql<HourRow>(
		db,
		'SELECT * FROM hour_histogram WHERE place_id = ? AND device = ? AND hour >= ? AND hour < ?'
	).all(...range);
	const earlier = sql<{ bins: Uint8Array }>(
		db,
		'SELECT bins FROM day_histogram WHERE place_id = ? AND device = ? AND day = ?'
	).get(bucket, device, day);
	const all: Histograms = earlier ? unpackHistograms(earlier.bins) : new Map();
	for (const { bins } of hours) addHistograms(all, unpackHistograms(bins));
	saveDay(db, bucket, device, day, all);
	sql(db, 'DELETE FROM hour_histogram WHERE place_id = ? AND device = ? AND hour >= ? AND hour < ?').run(...range);
}

export function saveDay(db: Db, bucket: number, device: DeviceClass, day: number, histograms: Histograms): void {
	sql(db, 'INSERT OR REPLACE INTO day_histogram (place_id, device, day, bins) VALUES (?, ?, ?, ?)').run(
		bucket,
		device,
		day,
		Buffer.from(packHistograms(histograms))
	);
}

export function deleteRaw(db: Db, now: number): boolean {
	const { changes } = sql(
		db,
		`DELETE FROM visit WHERE (site_id, id) IN (SELECT site_id, id FROM visit WHERE at < ? LIMIT ${MOST_AT_ONCE})`
	).run(now - RAW_DAYS * DAY_MS);
	return changes === MOST_AT_ONCE;
}

/** @param keepDays null for ever */
export function deleteOldDays(db: Db, siteId: number, keepDays: number | null, now: number): void {
	if (keepDays === null) return;
	sql(db, 'DELETE FROM day_histogram WHERE day < ? AND place_id IN (SELECT id FROM place WHERE site_id = ?)').run(
		Math.floor(now / DAY_MS) - keepDays,
		siteId
	);
}
