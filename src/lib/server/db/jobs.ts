/** The queue's table: one row per load that a trial asks for. */
import type { PlannedLoad } from '$core/trial/types';
import { nowIso, sql, type Db } from './connection';

export interface Job extends PlannedLoad {
	id: number;
	trialId: number;
	attempts: number;
	/** 0 for the first load of its place, 1 and 2 when it is loaded again. */
	retry: number;
}

interface JobRow {
	id: number;
	trial_id: number;
	arm_id: number;
	condition_id: string;
	stage: number;
	round: number;
	warmup: number;
	kind: 'load' | 'settle';
	attempts: number;
	retry: number;
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
		settle: row.kind === 'settle',
		attempts: row.attempts,
		retry: row.retry
	};
}

/**
 * Jobs that exist already stay as they are: pressing start twice adds nothing.
 * @param notBefore one moment (UTC ISO) per load of the plan, or none
 */
export function insertJobs(
	db: Db,
	trialId: number,
	plan: readonly PlannedLoad[],
	notBefore: readonly string[] = []
): void {
	plan.forEach((load, i) =>
		sql(
			db,
			'INSERT OR IGNORE INTO job (trial_id, arm_id, condition_id, stage, round, warmup, kind, not_before) VALUES (?, ?, ?, ?, ?, ?, ?, ?)'
		).run(
			trialId,
			load.armId,
			load.conditionId,
			load.stage,
			load.round,
			Number(load.warmup),
			load.settle ? 'settle' : 'load',
			notBefore[i] ?? null
		)
	);
}

/** Most further tries of a load that failed, at the end of its round. */
export const MOST_RETRIES = 2;
/** An arm that has failed so often without a single good load is not tried again: it is down. */
const HOPELESS_FAILURES = 9;

/** After a load that failed: load its place once more, at the end of its round. @returns whether that was queued */
export function retryJob(db: Db, job: Job): boolean {
	if (job.warmup || job.settle || job.retry >= MOST_RETRIES || isDown(db, job)) return false;
	const inserted = sql(
		db,
		'INSERT OR IGNORE INTO job (trial_id, arm_id, condition_id, stage, round, warmup, retry) VALUES (?, ?, ?, ?, ?, 0, ?)'
	).run(job.trialId, job.armId, job.conditionId, job.stage, job.round, job.retry + 1);
	return inserted.changes === 1;
}

function isDown(db: Db, { trialId, armId, conditionId, stage }: Job): boolean {
	const row = sql<{ good: number; failed: number }>(
		db,
		"SELECT coalesce(sum(status = 'ok'), 0) AS good, coalesce(sum(status = 'failed'), 0) AS failed FROM load WHERE trial_id = ? AND arm_id = ? AND condition_id = ? AND stage = ? AND warmup = 0"
	).get(trialId, armId, conditionId, stage)!;
	return row.good === 0 && row.failed >= HOPELESS_FAILURES;
}

/** Jobs that may run now: not of a paused trial, not before their time. */
const READY = `FROM job JOIN trial ON trial.id = trial_id
	WHERE job.status = 'queued' AND trial.paused = 0 AND trial.status IN ('queued', 'running') AND (not_before IS NULL OR not_before <= @now)`;

/**
 * Take the next job, or null. Trials take turns, a round each: a round that has begun goes on, since its loads belong
 * together in time; then the trial goes first that has waited longest.
 */
export function leaseJob(db: Db, owner: string, now = nowIso()): Job | null {
	return db
		.transaction(() => {
			const begun = sql<JobRow>(
				db,
				`SELECT job.* ${READY} AND EXISTS (
					SELECT 1 FROM job AS last WHERE last.id = (SELECT id FROM job WHERE trial_id = trial.id AND leased_at IS NOT NULL ORDER BY leased_at DESC, id DESC LIMIT 1)
					AND last.stage = job.stage AND last.round = job.round AND last.warmup = job.warmup AND trial.leased_at = (SELECT max(leased_at) FROM trial)
				) ORDER BY job.id LIMIT 1`
			).get({ now });
			const row =
				begun ??
				sql<JobRow>(db, `SELECT job.* ${READY} ORDER BY coalesce(trial.leased_at, ''), job.id LIMIT 1`).get({ now });
			if (!row) return null;
			const until = leaseEnd(now);
			sql(
				db,
				"UPDATE job SET status = 'leased', lease_owner = ?, leased_at = ?, lease_until = ?, attempts = attempts + 1 WHERE id = ?"
			).run(owner, now, until, row.id);
			// Two leases within a millisecond still have an order.
			sql(
				db,
				'UPDATE trial SET leased_at = max(@now, coalesce((SELECT max(leased_at) FROM trial), @now)) WHERE id = @id'
			).run({ now, id: row.trial_id });
			return { ...asJob(row), attempts: row.attempts + 1 };
		})
		.immediate();
}

/** When the next job of a trial may run, if it has to wait for it; null otherwise. */
export function nextStart(db: Db, trialId: number): string | null {
	const row = sql<{ at: string | null }>(
		db,
		"SELECT min(coalesce(not_before, '')) AS at FROM job WHERE trial_id = ? AND status IN ('queued', 'leased')"
	).get(trialId);
	return row?.at && row.at > nowIso() ? row.at : null;
}

/** Whole rounds: those of a stage in which no job is open any more, counted from the first. */
export function wholeRounds(db: Db, trialId: number, stage: number): number {
	const row = sql<{ n: number | null }>(
		db,
		"SELECT min(round) - 1 AS n FROM job WHERE trial_id = ? AND stage = ? AND warmup = 0 AND status IN ('queued', 'leased')"
	).get(trialId, stage);
	if (row && row.n !== null) return row.n;
	return (
		sql<{ n: number | null }>(
			db,
			"SELECT max(round) AS n FROM job WHERE trial_id = ? AND stage = ? AND warmup = 0 AND status = 'done'"
		).get(trialId, stage)?.n ?? 0
	);
}

/** Turn what is not needed any more away, for good. @returns how many */
export function dropOpenJobs(db: Db, trialId: number): number {
	return sql(db, "DELETE FROM job WHERE trial_id = ? AND status = 'queued'").run(trialId).changes;
}

/** @returns false when the lease was lost in the meantime: the load must then not be stored */
export function finishJob(db: Db, id: number, owner: string): boolean {
	return (
		sql(db, "UPDATE job SET status = 'done' WHERE id = ? AND lease_owner = ? AND status = 'leased'").run(id, owner)
			.changes === 1
	);
}

/** A lease that is not renewed for this long ends. */
export const LEASE_MS = 15_000;

export function leaseEnd(now: string): string {
	return new Date(Date.parse(now) + LEASE_MS).toISOString();
}

/** @returns false when the lease is no longer this lab's: its load must end, unstored */
export function renewJob(db: Db, id: number, owner: string): boolean {
	const renewed = sql(db, "UPDATE job SET lease_until = ? WHERE id = ? AND lease_owner = ? AND status = 'leased'");
	return renewed.run(leaseEnd(nowIso()), id, owner).changes === 1;
}

/** Give back leases of other labs: all of them, or those that have ended. @returns how many */
export function releaseLeases(db: Db, owner: string, endedBefore: string | null = null): number {
	return sql(
		db,
		`UPDATE job SET status = 'queued', lease_owner = NULL WHERE status = 'leased' AND lease_owner <> @owner
			AND (@endedBefore IS NULL OR coalesce(lease_until, '') < @endedBefore)`
	).run({ owner, endedBefore }).changes;
}

/** Give back what this lab holds. @param countAttempt false when the lab, not the load, is why it ends */
export function releaseJobs(db: Db, owner: string, countAttempt = true): void {
	sql(
		db,
		`UPDATE job SET status = 'queued', lease_owner = NULL, attempts = max(0, attempts - @back)
			WHERE status = 'leased' AND lease_owner = @owner`
	).run({ owner, back: countAttempt ? 0 : 1 });
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
	return (
		sql<{ stage: number | null }>(db, 'SELECT max(stage) AS stage FROM job WHERE trial_id = ?').get(trialId)!.stage ??
		-1
	);
}

/** The job that waits for an arm's page to be stable, or null. */
export function settleJob(db: Db, trialId: number, armId: number, conditionId: string, stage: number): number | null {
	return (
		sql<{ id: number }>(
			db,
			"SELECT id FROM job WHERE trial_id = ? AND arm_id = ? AND condition_id = ? AND stage = ? AND kind = 'settle'"
		).get(trialId, armId, conditionId, stage)?.id ?? null
	);
}

export function findJob(db: Db, id: number): Job | null {
	const row = sql<JobRow>(db, 'SELECT * FROM job WHERE id = ?').get(id);
	return row ? asJob(row) : null;
}
