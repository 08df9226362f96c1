/** Labs: a row each, renewed by its heartbeat. */
import { hostname } from 'node:os';
import { nowIso, sql, type Db } from '../../base/db/connection';

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

/** A lab that has not been heard of for this long is gone. */
export const BEAT_LIMIT_MS = 15_000;
/** Rows of labs that ended without a word are kept this long, for whoever looks for them. */
const FORGET_AFTER_MS = 3_600_000;

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

export function findLabOfProcess(db: Db, pid: number): LabState | null {
	return listLabs(db).find((lab) => lab.pid === pid && lab.host === hostname()) ?? null;
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

/**
 * Forget labs that are gone: those of this machine, whose lock the caller holds, and those not heard of for an hour.
 * @returns their ids
 */
export function forgetLabs(db: Db, ownId: string): string[] {
	const gone = listLabs(db).filter(
		({ id, host, beatAt }) => id !== ownId && (host === hostname() || Date.now() - Date.parse(beatAt) > FORGET_AFTER_MS)
	);
	for (const { id } of gone) deleteLab(db, id);
	return gone.map(({ id }) => id);
}

/** A load that is not over this long after its watchdog should have ended it shows a lab that is stuck. */
const STUCK_AFTER_MS = 15_000;

/** Whether the lab has not finished a load within the time that its watchdog allows. */
export function isStuck({ state, loadUntil }: LabState): boolean {
	return state === 'busy' && loadUntil !== null && Date.now() - Date.parse(loadUntil) > STUCK_AFTER_MS;
}

/** Heard of a short while ago; on this machine its process must live too. */
export function isAlive({ beatAt, host, pid }: LabState): boolean {
	if (Date.now() - Date.parse(beatAt) > BEAT_LIMIT_MS) return false;
	return host !== hostname() || isRunning(pid);
}

function isRunning(pid: number): boolean {
	try {
		process.kill(pid, 0);
		return true;
	} catch {
		return false;
	}
}

export function isAnyLabAlive(db: Db): boolean {
	return listLabs(db).some(isAlive);
}

/** No lab has been heard of lately: what labs work out waits. */
export const isLabOff = (db: Db): boolean => !listLabs(db).some(isAlive);
