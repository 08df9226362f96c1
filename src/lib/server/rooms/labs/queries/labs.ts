/** Labs and when they last gave a sign of life. */
import { hostname } from 'node:os';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export interface LabState {
	id: string;
	/** Name of the machine that it runs on. */
	host: string;
	pid: number;
	beatAt: string;
	state: 'idle' | 'busy';
	jobId: number | null;
	browser: string | null;
	problem: string | null;
	/** UTC ISO; when the load under way must be over. */
	loadUntil: string | null;
	/** Whether pages run in Chromium's sandbox; null before the first. */
	sandboxed: boolean | null;
}

interface LabRow {
	id: string;
	host: string;
	pid: number;
	beat_at: string;
	state: 'idle' | 'busy';
	job_id: number | null;
	browser: string | null;
	problem: string | null;
	load_until: string | null;
	sandboxed: number | null;
}

/** Busy ones first, then those heard of last. */
export function listLabs(db: Db): LabState[] {
	return sql<LabRow>(db, "SELECT * FROM lab ORDER BY state = 'busy' DESC, beat_at DESC")
		.all()
		.map((row) => ({
			id: row.id,
			host: row.host,
			pid: row.pid,
			beatAt: row.beat_at,
			state: row.state,
			jobId: row.job_id,
			browser: row.browser,
			problem: row.problem,
			loadUntil: row.load_until,
			sandboxed: row.sandboxed === null ? null : row.sandboxed === 1
		}));
}

export function saveLab(db: Db, lab: Omit<LabState, 'beatAt' | 'host'>): void {
	sql(
		db,
		`INSERT OR REPLACE INTO lab (id, host, pid, beat_at, state, job_id, browser, problem, load_until, sandboxed)
			VALUES (@id, @host, @pid, @now, @state, @jobId, @browser, @problem, @loadUntil, @sandboxed)`
	).run({
		...lab,
		host: hostname(),
		now: nowIso(),
		sandboxed: lab.sandboxed === null ? null : Number(lab.sandboxed)
	});
}

export function beat(db: Db, id: string): void {
	sql(db, 'UPDATE lab SET beat_at = ? WHERE id = ?').run(nowIso(), id);
}

export function deleteLab(db: Db, id: string): void {
	sql(db, 'DELETE FROM lab WHERE id = ?').run(id);
}
