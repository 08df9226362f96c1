/** The loads that a trial’s plan lays out, as jobs. */
import { nowIso, sql, type Db } from '../../../base/db/connection';
import type { TrialSlot } from '../../../base/queue/jobs';

const AT = `trial_id = @trialId AND arm_id = @armId AND condition_id = @conditionId AND stage = @stage
	AND round = @round AND warmup = @warmup`;

export const bound = ({ trialId, armId, conditionId, stage, round, warmup, retry }: TrialSlot) => ({
	trialId,
	armId,
	conditionId,
	stage,
	round,
	warmup: Number(warmup),
	retry
});

export function hasJob(db: Db, slot: TrialSlot): boolean {
	return sql(db, `SELECT 1 FROM trial_place WHERE ${AT} AND retry = @retry`).get(bound(slot)) !== undefined;
}

/** An arm that has failed so often without a single good load is not tried again: it is down. */
const HOPELESS_FAILURES = 9;

export function isDown(db: Db, { trialId, armId, conditionId, stage }: TrialSlot): boolean {
	const row = sql<{ good: number; failed: number }>(
		db,
		`SELECT coalesce(sum(status = 'ok'), 0) AS good, coalesce(sum(status = 'failed'), 0) AS failed FROM load
			WHERE trial_id = ? AND arm_id = ? AND condition_id = ? AND stage = ? AND warmup = 0`
	).get(trialId, armId, conditionId, stage)!;
	return row.good === 0 && row.failed >= HOPELESS_FAILURES;
}

const JOBS = 'FROM trial_place JOIN job ON job.id = job_id WHERE trial_id = @trialId';

const OPEN = "status IN ('queued', 'leased')";

/** When the next job of a trial may run, if it has to wait for it; null otherwise. */
export function nextStart(db: Db, trialId: number): string | null {
	const row = sql<{ at: string | null }>(db, `SELECT min(coalesce(not_before, '')) AS at ${JOBS} AND ${OPEN}`).get({
		trialId
	});
	return row?.at && row.at > nowIso() ? row.at : null;
}

/** Whole rounds: those of a stage in which no job is open any more or was stopped, counted from the first. */
export function wholeRounds(db: Db, trialId: number, stage: number): number {
	const inStage = `${JOBS} AND stage = @stage AND warmup = 0`;
	const first = (what: string, which: string) =>
		sql<{ n: number | null }>(db, `SELECT ${what} AS n ${inStage} AND ${which}`).get({ trialId, stage })!.n;
	return first('min(round) - 1', "status <> 'done'") ?? first('max(round)', "status = 'done'") ?? 0;
}

const PLACED = '(SELECT job_id FROM trial_place WHERE trial_id = @trialId)';

/** Turn what is not needed any more away, for good. */
export function deleteQueuedSlots(db: Db, trialId: number): void {
	sql(db, `DELETE FROM job WHERE status = 'queued' AND id IN ${PLACED}`).run({ trialId });
}

export function cancelQueuedSlots(db: Db, trialId: number): void {
	sql(db, `UPDATE job SET status = 'cancelled' WHERE status = 'queued' AND id IN ${PLACED}`).run({ trialId });
}

/** @param untilRound later rounds stay away; all come back without */
export function requeueSlots(db: Db, trialId: number, untilRound = Infinity): void {
	const slot = '(SELECT job_id FROM trial_place WHERE trial_id = @trialId AND (@until IS NULL OR round <= @until))';
	const until = Number.isFinite(untilRound) ? untilRound : null;
	sql(db, `UPDATE job SET status = 'queued' WHERE status = 'cancelled' AND id IN ${slot}`).run({ trialId, until });
}

/** The last round for which a load was ever planned; 0 for none. */
export function lastRound(db: Db, trialId: number): number {
	const row = sql<{ n: number | null }>(
		db,
		'SELECT max(round) AS n FROM trial_place WHERE trial_id = ? AND warmup = 0'
	);
	return row.get(trialId)?.n ?? 0;
}

/** All jobs of a trial that was measured elsewhere. */
export function finishSlots(db: Db, trialId: number): void {
	sql(db, `UPDATE job SET status = 'done' WHERE id IN ${PLACED}`).run({ trialId });
}

export function countOpenSlots(db: Db, trialId: number): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n ${JOBS} AND ${OPEN}`).get({ trialId })!.n;
}

/** Highest stage that has jobs, or -1. */
export function lastStage(db: Db, trialId: number): number {
	return sql<{ stage: number | null }>(db, `SELECT max(stage) AS stage ${JOBS}`).get({ trialId })!.stage ?? -1;
}

/** The job that waits for an arm's page to be stable, or null. */
export function findSettleJob(
	db: Db,
	{ trialId, armId, conditionId, stage }: { trialId: number; armId: number; conditionId: string; stage: number }
): number | null {
	const row = sql<{ id: number }>(
		db,
		`SELECT job.id ${JOBS} AND kind = 'settle' AND arm_id = @armId AND condition_id = @conditionId AND stage = @stage`
	).get({ trialId, armId, conditionId, stage });
	return row?.id ?? null;
}

export function insertTrialSlot(db: Db, jobId: number, slot: TrialSlot): void {
	sql(
		db,
		`INSERT INTO trial_place (job_id, trial_id, arm_id, condition_id, stage, round, warmup, retry)
			VALUES (@jobId, @trialId, @armId, @conditionId, @stage, @round, @warmup, @retry)`
	).run({ jobId, ...bound(slot) });
}
