/**
 * The database of visits, beside the main one: beacons come many times a second, and a change of the main one makes the
 * lab look for work and open pages read anew. Written by web alone.
 */
import Database from 'better-sqlite3';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { databaseProblem, type Db } from '../../base/db/connection';
import { DAY_MS, HOUR_MS } from './queries/store';

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
