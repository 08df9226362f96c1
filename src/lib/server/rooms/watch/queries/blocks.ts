/** Loads that a reading asks for, and those that came of them. */
import type { LateKind } from '$core/compare/late/facts';
import { sql, type Db } from '../../../base/db/connection';
import type { StoredFigures } from './readings';

export interface SlotRow {
	watchedPageId: number;
	conditionId: string;
	round: number;
	turn: number;
	retry: number;
	late: LateKind | null;
}

export function slotOfJob(db: Db, jobId: number): SlotRow | null {
	return (
		sql<SlotRow>(
			db,
			`SELECT watched_page_id AS watchedPageId, condition_id AS conditionId, round, turn, retry, late
				FROM reading_place WHERE job_id = ?`
		).get(jobId) ?? null
	);
}

/** Loads of a page outside the rounds of a run, newest first. */
export function lateLoadsOf(db: Db, { readingId, watchedPageId, conditionId }: StoredFigures): number[] {
	return sql<{ id: number }>(
		db,
		`SELECT load.id FROM reading_place JOIN load ON load.job_id = reading_place.job_id
			WHERE reading_id = ? AND watched_page_id = ? AND reading_place.condition_id = ? AND reading_place.late IS NOT NULL
			ORDER BY load.id DESC`
	)
		.all(readingId, watchedPageId, conditionId)
		.map(({ id }) => id);
}

export function slotsOf(db: Db, readingId: number) {
	return sql<{ watchedPageId: number; conditionId: string }>(
		db,
		`SELECT DISTINCT watched_page_id AS watchedPageId, condition_id AS conditionId FROM reading_place
			WHERE reading_id = ? AND late IS NULL`
	).all(readingId);
}

export const hashOfLoad = (db: Db, id: number) =>
	sql<{ hash: string | null }>(db, 'SELECT conditions_hash AS hash FROM load WHERE id = ?').get(id)?.hash ?? '';

/** Of the newest two readings all loads are kept; of older ones those that stand for them, with their pictures. */
export function pruneLoads(db: Db, watchId: number): void {
	sql(
		db,
		`DELETE FROM load WHERE job_id IN (
			SELECT job_id FROM reading_place WHERE reading_id IN (
				SELECT id FROM reading WHERE watch_id = @watchId AND state = 'done' ORDER BY id DESC LIMIT -1 OFFSET 2))
			AND id NOT IN (SELECT load_id FROM reading_figure WHERE load_id IS NOT NULL)`
	).run({ watchId });
}

export interface ReadingSlotColumns {
	jobId: number;
	readingId: number;
	page: number;
	condition: string;
	round: number;
	turn: number;
	retry: number;
	late: string | null;
}

export function insertReadingSlot(db: Db, slot: ReadingSlotColumns): void {
	sql(
		db,
		`INSERT INTO reading_place (job_id, reading_id, watched_page_id, condition_id, round, turn, retry, late)
			VALUES (@jobId, @readingId, @page, @condition, @round, @turn, @retry, @late)`
	).run(slot);
}

/** Loads of a page in a reading, without those for what comes late. */
export const slotLoads = (db: Db, readingId: number, watchedPageId: number, conditionId: string) =>
	sql<{ id: number; turn: number; round: number }>(
		db,
		`SELECT load.id, turn, reading_place.round FROM reading_place JOIN load ON load.job_id = reading_place.job_id
			WHERE reading_id = ? AND watched_page_id = ? AND reading_place.condition_id = ? AND reading_place.late IS NULL
			ORDER BY load.id`
	).all(readingId, watchedPageId, conditionId);

/** The load that stands for the page in the newest reading before; null without one. */
export const loadBefore = (db: Db, readingId: number, watchedPageId: number, conditionId: string): number | null =>
	sql<{ loadId: number }>(
		db,
		`SELECT load_id AS loadId FROM reading_figure WHERE watched_page_id = ? AND condition_id = ? AND reading_id < ?
			AND setting IS NOT NULL AND load_id IS NOT NULL ORDER BY reading_id DESC LIMIT 1`
	).get(watchedPageId, conditionId, readingId)?.loadId ?? null;

/** What waits for the lab; what is being loaded ends by itself. */
export function deleteQueued(db: Db, readingId: number): void {
	sql(db, "DELETE FROM job WHERE subject_kind = 'reading' AND subject_id = ? AND status = 'queued'").run(readingId);
}

export const hasLoads = (db: Db, readingId: number): boolean =>
	sql(
		db,
		'SELECT 1 FROM reading_place JOIN load ON load.job_id = reading_place.job_id WHERE reading_id = ? LIMIT 1'
	).get(readingId) !== undefined;
