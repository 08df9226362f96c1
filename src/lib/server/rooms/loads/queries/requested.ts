/** Jobs for loads outside trials. */
import { sql, type Db } from '../../../base/db/connection';
import type { Subject } from '../../../base/subject';
import type { JobStatus } from '../../../base/queue/jobs';

/** The client whom a job outside trials serves: named by the job itself, or that of the arm's trial. */
export function clientOfRequest(db: Db, subject: Subject): number | null {
	if (subject.kind === 'client') return subject.id;
	if (subject.kind !== 'arm') return null;
	const row = sql<{ client_id: number | null }>(
		db,
		'SELECT client_id FROM arm JOIN trial ON trial.id = arm.trial_id WHERE arm.id = ?'
	).get(subject.id);
	return row?.client_id ?? null;
}

const LISTED = 200;
const JOBS = `FROM job WHERE kind = 'load' AND status IN ('queued', 'leased') AND subject_kind NOT IN ('trial', 'reading', 'audit')`;

export const openJobs = (db: Db): { id: number }[] =>
	sql<{ id: number }>(db, `SELECT id ${JOBS} ORDER BY id DESC LIMIT ${LISTED}`).all();

export const jobsOfArms = (db: Db, trialId: number): { id: number }[] =>
	sql<{ id: number }>(
		db,
		`SELECT job.id FROM job WHERE subject_kind = 'arm' AND subject_id IN (SELECT id FROM arm WHERE trial_id = ?)
			ORDER BY job.id DESC LIMIT ${LISTED}`
	).all(trialId);

/** @param which part of the order it must have */
export const jobsOfLoad = (db: Db, loadId: number, which: string): { id: number }[] =>
	sql<{ id: number }>(
		db,
		`SELECT id FROM job WHERE kind = 'load' AND of_load = @loadId
			AND coalesce("order" ->> @which, 0) <> 0 ORDER BY id DESC LIMIT ${LISTED}`
	).all({ loadId, which });

export const jobsByStatus = (db: Db): { status: JobStatus; n: number }[] =>
	sql<{ status: JobStatus; n: number }>(db, `SELECT status, count(*) AS n ${JOBS} GROUP BY status`).all();

/** The newest load that came of a job outside trials; 0 without one. */
export const newestRequested = (db: Db): number =>
	sql<{ id: number | null }>(db, 'SELECT max(id) AS id FROM load WHERE trial_id IS NULL AND job_id IS NOT NULL').get()!
		.id ?? 0;
