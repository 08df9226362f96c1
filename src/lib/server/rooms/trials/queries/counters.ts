/** How far trials are: cheap enough to be asked for several times a second. */
import type { TrialStatus } from '$core/trial/design/status';
import { sql, type Db } from '../../../base/db/connection';

/** Columns `done` and `total` of a trial, counted from its jobs. @param trialId column that names the trial */
export const PROGRESS = (trialId: string) => `
	(SELECT count(*) FROM trial_place JOIN job ON job.id = job_id WHERE trial_id = ${trialId} AND status = 'done') AS done,
	(SELECT count(*) FROM trial_place JOIN job ON job.id = job_id WHERE trial_id = ${trialId} AND status <> 'cancelled') AS total`;

export interface TrialCounter {
	id: number;
	status: TrialStatus;
	done: number;
	total: number;
}

/** Counters of trials that run or wait, and of those that ended last; newest first. */
export function trialCounters(db: Db): TrialCounter[] {
	return sql<TrialCounter>(
		db,
		`WITH followed AS (
			SELECT id, status FROM trial WHERE status IN ('queued', 'running', 'paused', 'waiting')
			UNION SELECT id, status FROM (SELECT id, status FROM trial ORDER BY id DESC LIMIT 10)
		)
		SELECT id, status, ${PROGRESS('followed.id')} FROM followed ORDER BY id DESC LIMIT 50`
	).all();
}
