/** What the lab has before it, and how long its loads take. */
import { nowIso, sql, type Db } from '../../../base/db/connection';

interface Waiting {
	id: number;
	open: number;
	firstAt: string | null;
}

const OPEN = "job.status IN ('queued', 'leased')";

/**
 * Loads that come before the last one of a trial: all of readings and of a trial that was put first; of the others,
 * which take turns with it, as many as it has itself.
 */
export function loadsAhead(db: Db, trialId: number, open: number): number {
	const trials = sql<Waiting>(
		db,
		`SELECT trial.id, count(*) AS open, first_at AS firstAt FROM trial JOIN trial_place ON trial_id = trial.id
			JOIN job ON job.id = job_id WHERE trial.status IN ('queued', 'running') AND ${OPEN}
			AND (not_before IS NULL OR not_before <= ?) GROUP BY trial.id`
	).all(nowIso());
	const firstAt = trials.find(({ id }) => id === trialId)?.firstAt ?? null;
	const ofTrials = trials
		.filter(({ id }) => id !== trialId)
		.reduce((sum, other) => sum + aheadOf(firstAt, open, other), 0);
	return ofTrials + (firstAt === null ? openOfReadings(db) : 0);
}

function aheadOf(firstAt: string | null, open: number, other: Waiting): number {
	if (firstAt === null) return other.firstAt === null ? Math.min(open, other.open) : other.open;
	return other.firstAt !== null && other.firstAt > firstAt ? other.open : 0;
}

function openOfReadings(db: Db): number {
	return sql<{ n: number }>(
		db,
		`SELECT count(*) AS n FROM job WHERE ${OPEN} AND subject_kind = 'reading' AND (not_before IS NULL OR not_before <= ?)`
	).get(nowIso())!.n;
}

/** Until the load of a trial that waits longest for its time may begin. */
export function lastStartMs(db: Db, trialId: number): number {
	const { last } = sql<{ last: string | null }>(
		db,
		`SELECT max(not_before) AS last FROM trial_place JOIN job ON job.id = job_id WHERE trial_id = ? AND ${OPEN}`
	).get(trialId)!;
	return last === null ? 0 : Math.max(0, Date.parse(last) - Date.now());
}
