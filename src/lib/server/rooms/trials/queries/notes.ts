/** What is noted beside the loads of a trial: how pages settled, and what was changed between stages. */
import type { TrialSlot } from '../../../base/queue/jobs';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export interface SettlingRow<Result> {
	armId: number;
	conditionId: string;
	stage: number;
	result: Result;
}

export function saveSettling(db: Db, jobId: number, slot: TrialSlot, result: unknown): void {
	sql(
		db,
		'INSERT OR REPLACE INTO settling (job_id, trial_id, arm_id, condition_id, stage, result) VALUES (?, ?, ?, ?, ?, ?)'
	).run(jobId, slot.trialId, slot.armId, slot.conditionId, slot.stage, JSON.stringify(result));
}

export function settlingsOf<Result>(db: Db, trialId: number): SettlingRow<Result>[] {
	return sql<{ arm_id: number; condition_id: string; stage: number; result: string }>(
		db,
		'SELECT * FROM settling WHERE trial_id = ? ORDER BY job_id'
	)
		.all(trialId)
		.map((row) => ({
			armId: row.arm_id,
			conditionId: row.condition_id,
			stage: row.stage,
			result: JSON.parse(row.result) as Result
		}));
}

export interface Marker {
	id: number;
	stage: number | null;
	at: string;
	words: string;
	fileName: string | null;
	file: string | null;
}

export function insertMarker(db: Db, trialId: number, marker: Omit<Marker, 'id' | 'at'>): number {
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO marker (trial_id, stage, at, words, file_name, file) VALUES (?, ?, ?, ?, ?, ?)'
	).run(trialId, marker.stage, nowIso(), marker.words, marker.fileName, marker.file);
	return Number(lastInsertRowid);
}

/** A change between two stages of a trial on a page. */
export interface StageMarker extends Pick<Marker, 'id' | 'at' | 'words' | 'fileName'> {
	trialId: number;
	question: string;
}

/** What was changed in trials on an address, newest first. @param url a slash at its end more or less is the same */
export function stageMarkersAt(db: Db, url: string): StageMarker[] {
	return sql<StageMarker>(
		db,
		`SELECT marker.id, at, words, file_name AS fileName, trial.id AS trialId, question FROM marker
			JOIN trial ON trial.id = marker.trial_id
			WHERE EXISTS (SELECT 1 FROM arm WHERE arm.trial_id = trial.id AND rtrim(arm.url, '/') = rtrim(?, '/'))
			ORDER BY at DESC, marker.id DESC`
	).all(url);
}

export function markersOf(db: Db, trialId: number): Marker[] {
	return sql<Marker>(
		db,
		'SELECT id, stage, at, words, file_name AS fileName, file FROM marker WHERE trial_id = ? ORDER BY id'
	).all(trialId);
}
