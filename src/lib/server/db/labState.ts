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
	/** UTC ISO; when the load under way must be over. */
	loadUntil: string | null;
	/** Whether pages run in Chromium's sandbox; null before the first. */
	sandboxed: boolean | null;
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
		load_until: string | null;
		sandboxed: number | null;
	}>(db, 'SELECT * FROM lab_state WHERE id = 1').get();
	if (!row) return null;
	const { owner, pid, state, browser, problem } = row;
	const sandboxed = row.sandboxed === null ? null : row.sandboxed === 1;
	return {
		owner,
		pid,
		beatAt: row.beat_at,
		state,
		jobId: row.job_id,
		browser,
		problem,
		loadUntil: row.load_until,
		sandboxed
	};
}

export function writeLabState(db: Db, state: Omit<LabState, 'beatAt'>): void {
	sql(
		db,
		`INSERT OR REPLACE INTO lab_state (id, owner, pid, beat_at, state, job_id, browser, problem, load_until, sandboxed)
			VALUES (1, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
	).run(
		state.owner,
		state.pid,
		nowIso(),
		state.state,
		state.jobId,
		state.browser,
		state.problem,
		state.loadUntil,
		state.sandboxed === null ? null : Number(state.sandboxed)
	);
}

export function beat(db: Db, owner: string): void {
	sql(db, 'UPDATE lab_state SET beat_at = ? WHERE owner = ?').run(nowIso(), owner);
}

export function clearLabState(db: Db, owner: string): void {
	sql(db, 'DELETE FROM lab_state WHERE owner = ?').run(owner);
}

/** A load that is not over this long after its watchdog should have ended it shows a lab that is stuck. */
const STUCK_AFTER_MS = 15_000;

/** Whether the lab has not finished a load within the time that its watchdog allows. */
export function isStuck({ state, loadUntil }: LabState): boolean {
	return state === 'busy' && loadUntil !== null && Date.now() - Date.parse(loadUntil) > STUCK_AFTER_MS;
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
