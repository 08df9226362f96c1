/** What the lab process is doing, as the other processes see it. */
import { nowIso, sql, type Db } from './connection';

export interface LabState {
	owner: string;
	pid: number;
	beatAt: string;
	state: 'idle' | 'busy';
	jobId: number | null;
	browser: string | null;
	problem: string | null;
}

/** A runner that has not been heard of for this long is gone. */
export const BEAT_LIMIT_MS = 15_000;

export function readLabState(db: Db): LabState | null {
	const row = sql<{
		owner: string;
		pid: number;
		beat_at: string;
		state: 'idle' | 'busy';
		job_id: number | null;
		browser: string | null;
		problem: string | null;
	}>(db, 'SELECT * FROM lab_state WHERE id = 1').get();
	if (!row) return null;
	const { owner, pid, state, browser, problem } = row;
	return { owner, pid, beatAt: row.beat_at, state, jobId: row.job_id, browser, problem };
}

export function writeLabState(db: Db, state: Omit<LabState, 'beatAt'>): void {
	sql(
		db,
		'INSERT OR REPLACE INTO lab_state (id, owner, pid, beat_at, state, job_id, browser, problem) VALUES (1, ?, ?, ?, ?, ?, ?, ?)'
	).run(state.owner, state.pid, nowIso(), state.state, state.jobId, state.browser, state.problem);
}

export function beat(db: Db, owner: string): void {
	sql(db, 'UPDATE lab_state SET beat_at = ? WHERE owner = ?').run(nowIso(), owner);
}

export function clearLabState(db: Db, owner: string): void {
	sql(db, 'DELETE FROM lab_state WHERE owner = ?').run(owner);
}

/** Whether the process that wrote the state still lives on this machine. */
export function isAlive(state: LabState): boolean {
	if (Date.now() - Date.parse(state.beatAt) > BEAT_LIMIT_MS) return false;
	try {
		process.kill(state.pid, 0);
		return true;
	} catch {
		return false;
	}
}
