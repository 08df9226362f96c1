/** Readings of watches and what they found. */
import type { ReadingFigures, Setting } from '$core/watch/reading';
import type { PageTrouble } from '$core/watch/trouble';
import { sql, type Db } from '../../../base/db/connection';

export interface Reading {
	id: number;
	watchId: number;
	why: 'schedule' | 'demand' | 'recorded';
	state: 'open' | 'done';
	plannedAt: string;
	endedAt: string | null;
	missed: number;
	extended: { page: number; condition: string }[] | null;
}

type ReadingRow = Omit<Reading, 'extended'> & { extended: string | null };

const SELECT = `SELECT id, watch_id AS watchId, why, state, planned_at AS plannedAt, ended_at AS endedAt, missed, extended
	FROM reading`;

const asReading = (row: ReadingRow): Reading => ({
	...row,
	extended: row.extended === null ? null : (JSON.parse(row.extended) as Reading['extended'])
});

export function insertReading(
	db: Db,
	{ watchId, why, plannedAt, missed }: Pick<Reading, 'watchId' | 'why' | 'plannedAt' | 'missed'>
): number {
	const { lastInsertRowid } = sql(
		db,
		"INSERT INTO reading (watch_id, why, state, planned_at, missed) VALUES (?, ?, 'open', ?, ?)"
	).run(watchId, why, plannedAt, missed);
	return Number(lastInsertRowid);
}

export function findReading(db: Db, id: number): Reading | null {
	const row = sql<ReadingRow>(db, `${SELECT} WHERE id = ?`).get(id);
	return row ? asReading(row) : null;
}

/** The block that is under way or waits; null without one. */
export function openReading(db: Db, watchId: number): Reading | null {
	const row = sql<ReadingRow>(db, `${SELECT} WHERE watch_id = ? AND state = 'open' ORDER BY id LIMIT 1`).get(watchId);
	return row ? asReading(row) : null;
}

/** Oldest first. */
export function readingsOfWatch(db: Db, watchId: number): Reading[] {
	return sql<ReadingRow>(db, `${SELECT} WHERE watch_id = ? ORDER BY id`).all(watchId).map(asReading);
}

export function setExtended(db: Db, id: number, extended: NonNullable<Reading['extended']>): void {
	sql(db, 'UPDATE reading SET extended = ? WHERE id = ?').run(JSON.stringify(extended), id);
}

export function endReading(db: Db, id: number, at: string): void {
	sql(db, "UPDATE reading SET state = 'done', ended_at = ? WHERE id = ?").run(at, id);
}

export function deleteReading(db: Db, id: number): void {
	sql(db, 'DELETE FROM reading WHERE id = ?').run(id);
}

/** What a block showed of one page under one set of conditions. */
export interface StoredFigures {
	readingId: number;
	watchedPageId: number;
	conditionId: string;
	setting: Setting | null;
	figures: ReadingFigures;
	/** Of the loads that count, in the order of the figures. */
	rounds: number[];
	trouble: PageTrouble | null;
	disturbed: number;
	loadId: number | null;
}

export function saveFigures(db: Db, stored: StoredFigures): void {
	sql(
		db,
		`INSERT OR REPLACE INTO reading_figure
			(reading_id, watched_page_id, condition_id, setting, figures, rounds, trouble, disturbed, load_id)
			VALUES (@readingId, @watchedPageId, @conditionId, @setting, @figures, @rounds, @trouble, @disturbed, @loadId)`
	).run({
		...stored,
		setting: stored.setting && JSON.stringify(stored.setting),
		figures: JSON.stringify(stored.figures),
		rounds: JSON.stringify(stored.rounds),
		trouble: stored.trouble && JSON.stringify(stored.trouble)
	});
}

interface FigureRow {
	readingId: number;
	watchedPageId: number;
	conditionId: string;
	setting: string | null;
	figures: string;
	rounds: string;
	trouble: string | null;
	disturbed: number;
	loadId: number | null;
}

const FIGURES = `SELECT reading_id AS readingId, watched_page_id AS watchedPageId, condition_id AS conditionId, setting,
	figures, rounds, trouble, disturbed, load_id AS loadId FROM reading_figure`;

const asFigures = (row: FigureRow): StoredFigures => ({
	...row,
	setting: row.setting === null ? null : (JSON.parse(row.setting) as Setting),
	figures: JSON.parse(row.figures) as ReadingFigures,
	rounds: JSON.parse(row.rounds) as number[],
	trouble: row.trouble === null ? null : (JSON.parse(row.trouble) as PageTrouble)
});

/**
 * The page's own figures only: where it led elsewhere in a reading, those are of another page. An address that has led
 * there from the first reading on is told once, and its figures are its own.
 */
function ownFigures(stored: readonly StoredFigures[]): StoredFigures[] {
	const usual = new Map<string, string | null>();
	return stored.map((item) => {
		const key = `${item.watchedPageId}/${item.conditionId}`;
		const led = item.trouble?.redirectedTo ?? null;
		const isFirst = !usual.has(key) && item.setting !== null;
		if (isFirst) usual.set(key, led);
		if (led === null || isFirst) return item;
		if (led !== usual.get(key)) return { ...item, setting: null, figures: {}, rounds: [] };
		const trouble = { ...item.trouble!, redirectedTo: null, asksWhoOneIs: false };
		return { ...item, trouble: trouble.failed.length || trouble.likeness !== null ? trouble : null };
	});
}

/** Of whole blocks, oldest first. */
export function figuresOfWatch(db: Db, watchId: number): StoredFigures[] {
	const rows = sql<FigureRow>(
		db,
		`${FIGURES} JOIN reading ON reading.id = reading_id WHERE watch_id = ? AND state = 'done' ORDER BY reading_id`
	).all(watchId);
	return ownFigures(rows.map(asFigures));
}

export function figuresOfReading(db: Db, readingId: number): StoredFigures[] {
	return sql<FigureRow>(db, `${FIGURES} WHERE reading_id = ?`).all(readingId).map(asFigures);
}

/** Of one page, oldest first. */
export function figuresOfWatched(db: Db, watchedPageId: number): StoredFigures[] {
	const rows = sql<FigureRow>(
		db,
		`${FIGURES} JOIN reading ON reading.id = reading_id WHERE watched_page_id = ? AND state = 'done' ORDER BY reading_id`
	).all(watchedPageId);
	return ownFigures(rows.map(asFigures));
}

/** How far the open block is; null without one. */
export function readingProgress(db: Db, watchId: number): { done: number; total: number } | null {
	const reading = openReading(db, watchId);
	if (!reading) return null;
	const row = sql<{ done: number; total: number }>(
		db,
		`SELECT count(*) AS total, coalesce(sum(status = 'done'), 0) AS done FROM job
			WHERE subject_kind = 'reading' AND subject_id = ?`
	).get(reading.id)!;
	return row;
}
