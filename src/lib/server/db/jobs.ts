/** The queue's table: one row per load that a trial asks for. */
import type { PlannedLoad } from '../../../core/trial/types';
import { nowIso, sql, type Db } from './connection';

export interface Job extends PlannedLoad {
	id: number;
	trialId: number;
	attempts: number;
}

interface JobRow {
	id: number;
	trial_id: number;
	arm_id: number;
	condition_id: string;
	stage: number;
	round: number;
	warmup: number;
	attempts: number;
}

function asJob(row: JobRow): Job {
	return {
		id: row.id,
		trialId: row.trial_id,
		armId: row.arm_id,
		conditionId: row.condition_id,
		stage: row.stage,
		round: row.round,
		warmup: row.warmup === 1,
		attempts: row.attempts
	};
}

/** Jobs that exist already stay as they are: pressing start twice adds nothing. */
export function insertJobs(db: Db, trialId: number, plan: readonly PlannedLoad[]): void {
	for (const load of plan)
		sql(
			db,
			'INSERT OR IGNORE INTO job (trial_id, arm_id, condition_id, stage, round, warmup) VALUES (?, ?, ?, ?, ?, ?)'
		).run(trialId, load.armId, load.conditionId, load.stage, load.round, Number(load.warmup));
}

/** Take the next job, or null. The oldest trial goes first. */
export function leaseJob(db: Db, owner: string): Job | null {
	return db
		.transaction(() => {
			const row = sql<JobRow>(db, "SELECT * FROM job WHERE status = 'queued' ORDER BY id LIMIT 1").get();
			if (!row) return null;
			sql(
				db,
				"UPDATE job SET status = 'leased', lease_owner = ?, leased_at = ?, attempts = attempts + 1 WHERE id = ?"
			).run(owner, nowIso(), row.id);
			return { ...asJob(row), attempts: row.attempts + 1 };
		})
		.immediate();
}

/** @returns false when the lease was lost in the meantime: the load must then not be stored */
export function finishJob(db: Db, id: number, owner: string): boolean {
	return (
		sql(db, "UPDATE job SET status = 'done' WHERE id = ? AND lease_owner = ? AND status = 'leased'").run(id, owner)
			.changes === 1
	);
}

/** Give back every lease that another, dead runner held. */
export function releaseLeases(db: Db, owner: string): number {
	return sql(
		db,
		"UPDATE job SET status = 'queued', lease_owner = NULL WHERE status = 'leased' AND lease_owner <> ?"
	).run(owner).changes;
}

export function cancelJobs(db: Db, trialId: number): void {
	sql(db, "UPDATE job SET status = 'cancelled' WHERE trial_id = ? AND status = 'queued'").run(trialId);
}

export function requeueJobs(db: Db, trialId: number): void {
	sql(db, "UPDATE job SET status = 'queued' WHERE trial_id = ? AND status = 'cancelled'").run(trialId);
}

export function openJobs(db: Db, trialId: number): number {
	return sql<{ n: number }>(
		db,
		"SELECT count(*) AS n FROM job WHERE trial_id = ? AND status IN ('queued', 'leased')"
	).get(trialId)!.n;
}

/** Highest stage that has jobs, or -1. */
export function lastStage(db: Db, trialId: number): number {
	return sql<{ stage: number | null }>(db, 'SELECT max(stage) AS stage FROM job WHERE trial_id = ?').get(trialId)!.stage ?? -1;
}

export function findJob(db: Db, id: number): Job | null {
	const row = sql<JobRow>(db, 'SELECT * FROM job WHERE id = ?').get(id);
	return row ? asJob(row) : null;
}
