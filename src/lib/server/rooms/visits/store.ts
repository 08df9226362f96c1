/**
 * The database of visits, beside the main one: beacons come many times a second, and a change of the main one makes the
 * lab look for work and open pages read anew. Written by web alone.
 */
import { randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Refusal } from '$core/field/visit';
import { databaseProblem, sql, type Db } from '../../base/db/connection';

/** Each step in a transaction; only added to. */
const STEPS = [
	`CREATE TABLE fact (name TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT, WITHOUT ROWID;
	CREATE TABLE tally_name (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE) STRICT;
	CREATE TABLE place (id INTEGER PRIMARY KEY, site_id INTEGER NOT NULL, path TEXT NOT NULL, UNIQUE (site_id, path)) STRICT;
	-- Single page views of the last days: for the live view, and so that none counts twice.
	CREATE TABLE visit (
		site_id INTEGER NOT NULL, id TEXT NOT NULL, at INTEGER NOT NULL, place_id INTEGER NOT NULL, device TEXT NOT NULL,
		sending INTEGER NOT NULL, fault TEXT, body TEXT NOT NULL, PRIMARY KEY (site_id, id)
	) STRICT, WITHOUT ROWID;
	CREATE INDEX visit_by_time ON visit (site_id, at);
	-- Hours since 1970; days are counted the same way once their hours are merged.
	CREATE TABLE hour_histogram (
		place_id INTEGER NOT NULL, device TEXT NOT NULL, hour INTEGER NOT NULL, bins BLOB NOT NULL,
		PRIMARY KEY (place_id, device, hour)
	) STRICT, WITHOUT ROWID;
	CREATE TABLE day_histogram (
		place_id INTEGER NOT NULL, device TEXT NOT NULL, day INTEGER NOT NULL, bins BLOB NOT NULL,
		PRIMARY KEY (place_id, device, day)
	) STRICT, WITHOUT ROWID;
	CREATE TABLE refusal (
		site_id INTEGER NOT NULL, day INTEGER NOT NULL, reason TEXT NOT NULL, count INTEGER NOT NULL,
		PRIMARY KEY (site_id, day, reason)
	) STRICT, WITHOUT ROWID;`
];

export const HOUR_MS = 3_600_000;
export const HOURS_A_DAY = 24;
export const DAY_MS = HOUR_MS * HOURS_A_DAY;
export const hourOf = (ms: number): number => Math.floor(ms / HOUR_MS);
/** A day as text, as its number since 1970, and back. */
export const dayNumber = (day: string): number => Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
export const dayText = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);

function openFile(folder: string): Db {
	const file = join(folder, 'visits.db');
	try {
		mkdirSync(folder, { recursive: true });
		const db = new Database(file, { timeout: 5000 });
		db.pragma('journal_mode = WAL');
		return db;
	} catch (error) {
		const problem = databaseProblem(error, file);
		throw new Error(
			`The visits of this data folder cannot be used: ${problem} Without the file Zafra starts with no visits; clients, trials and reports are in another one.`,
			{ cause: error }
		);
	}
}

/** @throws Error in words when the file cannot be used, or was written by a newer Zafra */
export function openVisits(folder: string): Db {
	const db = openFile(folder);
	db.pragma('synchronous = NORMAL');
	const reached = db.pragma('user_version', { simple: true }) as number;
	if (reached > STEPS.length)
		throw new Error(`The visits of this data folder were written by a newer Zafra. Start the newer one.`);
	STEPS.slice(reached).forEach((step, i) =>
		db.transaction(() => {
			db.exec(step);
			db.pragma(`user_version = ${reached + i + 1}`);
		})()
	);
	return db;
}

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

export function placeId(db: Db, siteId: number, path: string): number {
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
			db.prepare(`DELETE FROM ${table} WHERE place_id IN (SELECT id FROM place WHERE site_id = ?)`).run(siteId);
		for (const table of ['visit', 'refusal', 'place']) db.prepare(`DELETE FROM ${table} WHERE site_id = ?`).run(siteId);
	})();
}
