/** How calm the machine was: from its loads, and from the minutes in which nothing was measured. */
import { hostname } from 'node:os';
import { sql, type Db } from '../../../base/db/connection';

/** Minutes are kept for so long. */
const KEPT_MS = 2 * 86_400_000;

/** @param at UTC ISO, the minute's end @param share null when the machine does not tell */
export function saveQuietMinute(db: Db, at: string, share: number | null): void {
	const host = hostname();
	sql(db, 'INSERT OR REPLACE INTO quiet_minute (host, at, others_share) VALUES (?, ?, ?)').run(host, at, share);
	const since = new Date(Date.parse(at) - KEPT_MS).toISOString();
	sql(db, 'DELETE FROM quiet_minute WHERE host = ? AND at < ?').run(host, since);
}

export interface CalmHour {
	/** "2026-11-27T10", UTC. */
	hour: string;
	loads: number;
	disturbed: number;
	/** Mean share of the processor time that others took, 0 to 1; null when unknown. */
	share: number | null;
}

/** Not what came with a client from another Zafra, or with the demonstration: that was another machine. */
const MEASURED_HERE = `source = 'lab' AND EXISTS (SELECT 1 FROM job WHERE job.id = load.job_id AND lab_id IS NOT NULL)`;

/** Hours since a moment (UTC ISO) of which something is known, oldest first. */
export function calmHours(db: Db, since: string): CalmHour[] {
	return sql<CalmHour>(
		db,
		`WITH seen AS (
			SELECT substr(started_at, 1, 13) AS hour, 1 AS loads, disturbed, others_share FROM load
				WHERE ${MEASURED_HERE} AND started_at >= @since
			UNION ALL
			SELECT substr(at, 1, 13), 0, 0, others_share FROM quiet_minute WHERE at >= @since
		)
		SELECT hour, sum(loads) AS loads, sum(disturbed) AS disturbed, avg(others_share) AS share
			FROM seen GROUP BY hour ORDER BY hour`
	).all({ since });
}

export interface LoadSpeed {
	at: string;
	/** Rounds of the calibration loop per ms, without slowdown. */
	speed: number;
	browser: string | null;
}

/** Speeds read before the newest loads, oldest first. */
export function recentSpeeds(db: Db, most: number): LoadSpeed[] {
	return sql<LoadSpeed>(
		db,
		`SELECT started_at AS at, machine_speed AS speed, browser FROM load
			WHERE source = 'lab' AND machine_speed IS NOT NULL ORDER BY id DESC LIMIT ?`
	)
		.all(most)
		.reverse();
}
