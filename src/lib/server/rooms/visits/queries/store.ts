/** Buckets, tallies and refusals of visits. */
import { randomBytes } from 'node:crypto';
import type { Refusal } from '$core/field/visit';
import { sql, type Db } from '../../../base/db/connection';

export const HOUR_MS = 3_600_000;

export const HOURS_A_DAY = 24;

export const DAY_MS = HOUR_MS * HOURS_A_DAY;

/** Drawn once for a data folder; signs the tokens of scripts. */
export function secretOf(db: Db): string {
	sql(db, "INSERT OR IGNORE INTO fact (name, value) VALUES ('secret', ?)").run(randomBytes(24).toString('base64url'));
	return sql<{ value: string }>(db, "SELECT value FROM fact WHERE name = 'secret'").get()!.value;
}

export function tallyId(db: Db, name: string): number {
	const find = () => sql<{ id: number }>(db, 'SELECT id FROM tally_name WHERE name = ?').get(name)?.id;
	return find() ?? Number(sql(db, 'INSERT INTO tally_name (name) VALUES (?)').run(name).lastInsertRowid);
}

/** Null for a name that nothing was counted under yet. */
export function findTally(db: Db, name: string): number | null {
	return sql<{ id: number }>(db, 'SELECT id FROM tally_name WHERE name = ?').get(name)?.id ?? null;
}

export function bucketId(db: Db, siteId: number, path: string): number {
	const find = () =>
		sql<{ id: number }>(db, 'SELECT id FROM place WHERE site_id = ? AND path = ?').get(siteId, path)?.id;
	return find() ?? Number(sql(db, 'INSERT INTO place (site_id, path) VALUES (?, ?)').run(siteId, path).lastInsertRowid);
}

export function countRefusal(db: Db, siteId: number, reason: Refusal, now: number, count = 1): void {
	sql(
		db,
		`INSERT INTO refusal (site_id, day, reason, count) VALUES (@siteId, @day, @reason, @count)
			ON CONFLICT (site_id, day, reason) DO UPDATE SET count = count + excluded.count`
	).run({ siteId, day: Math.floor(now / DAY_MS), reason, count });
}

/** Of the last days, by reason. */
export function refusalsOf(db: Db, siteId: number, now: number, days = 7): { reason: Refusal; count: number }[] {
	return sql<{ reason: Refusal; count: number }>(
		db,
		`SELECT reason, sum(count) AS count FROM refusal WHERE site_id = ? AND day > ? GROUP BY reason ORDER BY count DESC`
	).all(siteId, Math.floor(now / DAY_MS) - days);
}

/** All that is kept of a site's visits. */
export function deleteVisitsOf(db: Db, siteId: number): void {
	db.transaction(() => {
		for (const table of ['hour_histogram', 'day_histogram'])
			sql(db, `DELETE FROM ${table} WHERE place_id IN (SELECT id FROM place WHERE site_id = ?)`).run(siteId);
		for (const table of ['visit', 'refusal', 'place']) sql(db, `DELETE FROM ${table} WHERE site_id = ?`).run(siteId);
	})();
}
