/** Evidence of a trial (why, fairness, what broke), settling, markers: derived or noted, kept beside the loads. */
import { nowIso, sql, type Db } from './connection';

export interface KeptEvidence<Result> {
	result: Result;
	/** The loads or the rules have changed since. */
	stale: boolean;
}

export function findEvidence<Result>(
	db: Db,
	trialId: number,
	version: string,
	stamp: string
): KeptEvidence<Result> | null {
	const row = sql<{ version: string; stamp: string; result: string }>(
		db,
		'SELECT version, stamp, result FROM evidence WHERE trial_id = ?'
	).get(trialId);
	return row
		? { result: JSON.parse(row.result) as Result, stale: row.version !== version || row.stamp !== stamp }
		: null;
}

export function keepEvidence(
	db: Db,
	trialId: number,
	version: string,
	stamp: string,
	result: unknown,
	pictures: ReadonlyMap<string, Buffer>
): void {
	db.transaction(() => {
		sql(db, 'INSERT OR REPLACE INTO evidence (trial_id, version, stamp, result) VALUES (?, ?, ?, ?)').run(
			trialId,
			version,
			stamp,
			JSON.stringify(result)
		);
		sql(db, 'DELETE FROM evidence_picture WHERE trial_id = ?').run(trialId);
		for (const [name, image] of pictures)
			sql(db, 'INSERT INTO evidence_picture (trial_id, name, image) VALUES (?, ?, ?)').run(trialId, name, image);
	})();
}

export function findEvidencePicture(db: Db, trialId: number, name: string): Buffer | null {
	return (
		sql<{ image: Buffer }>(db, 'SELECT image FROM evidence_picture WHERE trial_id = ? AND name = ?').get(trialId, name)
			?.image ?? null
	);
}

/** Newest trial at rest, with loads, whose judgement or evidence is missing or made from other inputs; null when none. */
export function trialWithoutDerived(
	db: Db,
	table: 'judgement' | 'evidence',
	version: string,
	without: readonly number[] = []
): number | null {
	const row = sql<{ id: number }>(
		db,
		`SELECT id FROM trial WHERE status IN ('done', 'stopped', 'waiting')
			AND NOT EXISTS (SELECT 1 FROM ${table} WHERE trial_id = trial.id AND version = @version AND stamp = CAST(trial.inputs AS TEXT))
			AND EXISTS (SELECT 1 FROM load WHERE trial_id = trial.id AND warmup = 0)
			AND id NOT IN (SELECT value FROM json_each(@without)) ORDER BY id DESC LIMIT 1`
	).get({ version, without: JSON.stringify(without) });
	return row?.id ?? null;
}

export interface SettlingRow<Result> {
	armId: number;
	conditionId: string;
	stage: number;
	result: Result;
}

export function keepSettling(
	db: Db,
	job: { id: number; trialId: number; armId: number; conditionId: string; stage: number },
	result: unknown
): void {
	sql(
		db,
		'INSERT OR REPLACE INTO settling (job_id, trial_id, arm_id, condition_id, stage, result) VALUES (?, ?, ?, ?, ?, ?)'
	).run(job.id, job.trialId, job.armId, job.conditionId, job.stage, JSON.stringify(result));
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

export function markersOf(db: Db, trialId: number): Marker[] {
	return sql<Marker>(
		db,
		'SELECT id, stage, at, words, file_name AS fileName, file FROM marker WHERE trial_id = ? ORDER BY id'
	).all(trialId);
}
