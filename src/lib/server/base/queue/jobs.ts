/** The one queue: whatever a lab shall do is a job. */
import type { LoadPlace } from '$core/trial/design/place';
import { nowIso, sql, type Db } from '../db/connection';
import type { Subject, SubjectKind } from '../subject';

export type JobKind = 'load' | 'settle' | 'derive' | 'render' | 'gather';

/** A trial's job: its slot, and which try of that slot it is. */
export interface TrialSlot extends LoadPlace {
	trialId: number;
	/** 0 for the first load of its slot, 1 and 2 when it is loaded again. */
	retry: number;
}

export type JobStatus = 'queued' | 'leased' | 'done' | 'cancelled';

export interface Job {
	id: number;
	kind: JobKind;
	/** Whom it serves. Loads outside trials serve an arm (what it holds back), a client, or nobody. */
	subject: Subject;
	/** What is to be done, where the subject does not say it; parsed by the handler of the kind. */
	order: unknown;
	slot: TrialSlot | null;
	status: JobStatus;
	/** Tries that were begun, this one among them. */
	attempts: number;
}

/** Higher goes first. The analyst waits for a single load; what is derived is quick and fits between two loads. */
export const PRIORITY = { awaited: 10, trial: 0, catchUp: -10 } as const;

interface JobRow {
	id: number;
	kind: JobKind;
	subject_kind: SubjectKind;
	subject_id: number;
	order: string | null;
	status: JobStatus;
	attempts: number;
	trial_id: number | null;
	arm_id: number;
	condition_id: string;
	stage: number;
	round: number;
	warmup: number;
	retry: number;
}

const COLUMNS = `job.id, job.kind, job.subject_kind, job.subject_id, job."order", job.status, job.attempts,
	trial_place.trial_id, arm_id, trial_place.condition_id, stage, trial_place.round, warmup, trial_place.retry`;
const SELECT = `SELECT ${COLUMNS} FROM job LEFT JOIN trial_place ON trial_place.job_id = job.id`;

function asJob(row: JobRow): Job {
	const slot = row.trial_id === null ? null : asSlot(row, row.trial_id);
	const order: unknown = row.order === null ? null : JSON.parse(row.order);
	const subject = { kind: row.subject_kind, id: row.subject_id };
	return { id: row.id, kind: row.kind, subject, order, slot, status: row.status, attempts: row.attempts };
}

function asSlot(row: JobRow, trialId: number): TrialSlot {
	return {
		trialId,
		armId: row.arm_id,
		conditionId: row.condition_id,
		stage: row.stage,
		round: row.round,
		warmup: row.warmup === 1,
		retry: row.retry
	};
}

export function findJob(db: Db, id: number): Job | null {
	const row = sql<JobRow>(db, `${SELECT} WHERE job.id = ?`).get(id);
	return row ? asJob(row) : null;
}

interface NewJob {
	kind: JobKind;
	subject: Subject;
	order?: unknown;
	/** The load whose page is asked again. */
	ofLoad?: number | null;
	priority?: number;
	/** UTC ISO. */
	notBefore?: string | null;
}

/** @returns the new job's id */
export function insertJob(db: Db, job: NewJob): number {
	const { kind, subject, order = null, priority = PRIORITY.trial, notBefore = null, ofLoad = null } = job;
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO job (kind, subject_kind, subject_id, "order", of_load, priority, not_before, created_at)
			VALUES (@kind, @subjectKind, @subjectId, @order, @ofLoad, @priority, @notBefore, @now)`
	).run({
		kind,
		subjectKind: subject.kind,
		subjectId: subject.id,
		order: order === null ? null : JSON.stringify(order),
		ofLoad,
		priority,
		notBefore,
		now: nowIso()
	});
	return Number(lastInsertRowid);
}

/** What a lab of this version can do: a job of a newer one waits for a newer lab. */
const KNOWN_KINDS: readonly JobKind[] = ['load', 'settle', 'derive', 'gather', 'render'];
/** Jobs that wait and may run now. */
const READY = `job.status = 'queued' AND (job.not_before IS NULL OR job.not_before <= @now)
	AND job.kind IN (${KNOWN_KINDS.map((kind) => `'${kind}'`).join(', ')})`;
const OF_TRIALS = `${SELECT} JOIN trial ON trial.id = trial_id
	WHERE ${READY} AND trial.status IN ('queued', 'running')`;

/**
 * Take the next job, or null. First what is awaited or quick, then the trial that was put first, then readings of
 * watched pages, then the trials in turns, then what may wait. Trials take
 * turns, a round each: a round that has begun goes on, since its loads belong together in time; then the trial goes
 * first that has waited longest.
 */
export function leaseJob(db: Db, labId: string, now = nowIso()): Job | null {
	return db
		.transaction(() => {
			reclaimLeases(db, now);
			const row =
				nextOutsideTrials(db, now, 'priority > 0') ??
				nextOfRoundUnderWay(db, now) ??
				nextOfFirstTrial(db, now) ??
				nextOfReadings(db, now) ??
				nextInTurn(db, now) ??
				nextOutsideTrials(db, now, 'priority <= 0');
			return row ? lease(db, row, labId, now) : null;
		})
		.immediate();
}

function nextOutsideTrials(db: Db, now: string, which: string): JobRow | undefined {
	return sql<JobRow>(
		db,
		`${SELECT} WHERE ${READY} AND trial_id IS NULL AND (job.subject_kind NOT IN ('reading', 'audit') OR job.kind <> 'load') AND ${which} ORDER BY priority DESC, job.id LIMIT 1`
	).get({ now });
}

/** Blocks of watched pages, oldest first, by round: their loads belong together in time as those of a trial do. */
function nextOfReadings(db: Db, now: string): JobRow | undefined {
	return sql<JobRow>(
		db,
		`${SELECT} JOIN reading_place ON reading_place.job_id = job.id WHERE ${READY} AND job.subject_kind = 'reading'
			ORDER BY reading_place.reading_id, reading_place.round, job.id LIMIT 1`
	).get({ now });
}

/** Audits and trials in turns: a load of an audit between two rounds of trials. */
function nextInTurn(db: Db, now: string): JobRow | undefined {
	const turns = wasAudit(db) ? [nextOfTrials, nextOfAudits] : [nextOfAudits, nextOfTrials];
	return turns[0]!(db, now) ?? turns[1]!(db, now);
}

const wasAudit = (db: Db): boolean =>
	sql<{ kind: SubjectKind }>(
		db,
		'SELECT subject_kind AS kind FROM job WHERE leased_at IS NOT NULL ORDER BY leased_at DESC, id DESC LIMIT 1'
	).get()?.kind === 'audit';

function nextOfAudits(db: Db, now: string): JobRow | undefined {
	return sql<JobRow>(
		db,
		`${SELECT} WHERE ${READY} AND job.subject_kind = 'audit' AND job.kind = 'load' ORDER BY job.id LIMIT 1`
	).get({ now });
}

/** The round in which the trial that was served last stands. */
function nextOfRoundUnderWay(db: Db, now: string): JobRow | undefined {
	const last = sql<{ trial_id: number; stage: number; round: number; warmup: number }>(
		db,
		`SELECT trial_id, stage, round, warmup FROM trial_place JOIN job ON job.id = job_id
			WHERE trial_id = (SELECT id FROM trial WHERE leased_at IS NOT NULL ORDER BY leased_at DESC LIMIT 1)
			AND job.leased_at IS NOT NULL ORDER BY job.leased_at DESC, job.id DESC LIMIT 1`
	).get();
	if (!last) return undefined;
	return sql<JobRow>(
		db,
		`${OF_TRIALS} AND trial_id = @trial_id AND stage = @stage AND round = @round AND warmup = @warmup
			ORDER BY job.id LIMIT 1`
	).get({ now, ...last });
}

/** Of the trial that somebody put first; of several the one that was put there last. */
function nextOfFirstTrial(db: Db, now: string): JobRow | undefined {
	return sql<JobRow>(
		db,
		`${OF_TRIALS} AND trial.first_at IS NOT NULL ORDER BY trial.first_at DESC, job.id LIMIT 1`
	).get({
		now
	});
}

function nextOfTrials(db: Db, now: string): JobRow | undefined {
	return sql<JobRow>(db, `${OF_TRIALS} ORDER BY coalesce(trial.leased_at, ''), job.id LIMIT 1`).get({ now });
}

function lease(db: Db, row: JobRow, labId: string, now: string): Job {
	sql(
		db,
		`UPDATE job SET status = 'leased', lab_id = ?, leased_at = ?, lease_until = ?, attempts = attempts + 1 WHERE id = ?`
	).run(labId, now, leaseEnd(now), row.id);
	// Two leases within a millisecond still have an order.
	if (row.trial_id !== null)
		sql(
			db,
			'UPDATE trial SET leased_at = max(@now, coalesce((SELECT max(leased_at) FROM trial), @now)) WHERE id = @id'
		).run({ now, id: row.trial_id });
	return { ...asJob(row), status: 'leased', attempts: row.attempts + 1 };
}

/** A lease that is not renewed for this long ends. */
export const LEASE_MS = 15_000;

function leaseEnd(now: string): string {
	return new Date(Date.parse(now) + LEASE_MS).toISOString();
}

/** @returns false when the lease is no longer this lab's: its load must end, unstored */
export function renewLease(db: Db, id: number, labId: string): boolean {
	const renewed = sql(db, "UPDATE job SET lease_until = ? WHERE id = ? AND lab_id = ? AND status = 'leased'");
	return renewed.run(leaseEnd(nowIso()), id, labId).changes === 1;
}

/** What was derived leaves no job behind. @returns false when the lease was lost: nothing may then be stored */
export function finishJob(db: Db, { id, kind }: Pick<Job, 'id' | 'kind'>, labId: string): boolean {
	const held = "WHERE id = ? AND lab_id = ? AND status = 'leased'";
	const finish = kind === 'derive' ? `DELETE FROM job ${held}` : `UPDATE job SET status = 'done' ${held}`;
	return sql(db, finish).run(id, labId).changes === 1;
}

const BACK = "UPDATE job SET status = 'queued', lab_id = NULL, lease_until = NULL";

/**
 * Give back what a lab holds.
 * @param countAttempt false when the lab, not the load, is why it ends
 * @param notBefore UTC ISO; null for at once
 */
export function giveBack(db: Db, labId: string, { countAttempt = true, notBefore = null as string | null } = {}): void {
	// The same is waiting already: it was asked for again while this one was under way.
	sql(
		db,
		`DELETE FROM job WHERE status = 'leased' AND lab_id = @labId AND kind = 'derive' AND EXISTS (SELECT 1 FROM job AS same
			WHERE same.kind = 'derive' AND same.status = 'queued' AND same.subject_kind = job.subject_kind AND same.subject_id = job.subject_id
				AND same."order" = job."order")`
	).run({ labId });
	sql(
		db,
		`${BACK}, attempts = max(0, attempts - @back), not_before = coalesce(@notBefore, not_before)
			WHERE status = 'leased' AND lab_id = @labId`
	).run({ labId, notBefore, back: countAttempt ? 0 : 1 });
}

/**
 * Give back the leases that have ended, whoever held them.
 * @param now UTC ISO
 * @returns how many
 */
export function reclaimLeases(db: Db, now: string): number {
	const holders = sql<{ lab_id: string }>(
		db,
		"SELECT DISTINCT lab_id FROM job WHERE status = 'leased' AND coalesce(lease_until, '') < ?"
	).all(now);
	for (const { lab_id } of holders) giveBack(db, lab_id);
	return holders.length;
}

/** Whether a job waits still or is under way. */
export function isOpen(status: JobStatus): boolean {
	return status === 'queued' || status === 'leased';
}

/** Loads that some lab has still to do. */
export function countOpenLoads(db: Db): number {
	return sql<{ n: number }>(
		db,
		"SELECT count(*) AS n FROM job WHERE kind = 'load' AND status IN ('queued', 'leased')"
	).get()!.n;
}

/** A job that was done elsewhere. */
export function closeJob(db: Db, id: number): void {
	sql(db, "UPDATE job SET status = 'done' WHERE id = ?").run(id);
}

/** Of a load outside trials. @returns whether it was still waiting */
export function deleteQueuedJob(db: Db, id: number): boolean {
	return (
		sql(db, "DELETE FROM job WHERE id = ? AND status = 'queued' AND subject_kind <> 'trial'").run(id).changes === 1
	);
}

/** Whether a job of that kind about that subject waits or is under way. */
export function hasOpenJob(db: Db, kind: JobKind, subject: Subject): boolean {
	const open = sql(
		db,
		`SELECT 1 FROM job WHERE subject_kind = ? AND subject_id = ? AND kind = ? AND status IN ('queued', 'leased') LIMIT 1`
	);
	return open.get(subject.kind, subject.id, kind) !== undefined;
}

/** What is derived of a subject is asked for once, however often. */
export function requestDerived(db: Db, subject: Subject, what: string, priority: number): void {
	sql(
		db,
		`INSERT OR IGNORE INTO job (kind, subject_kind, subject_id, "order", priority, created_at)
			VALUES ('derive', @kind, @id, json_quote(@what), @priority, @now)`
	).run({ ...subject, what, priority, now: nowIso() });
}
