/** Labs: a row each, renewed by its heartbeat. */
import { hostname } from 'node:os';
import type { Db } from '../../base/db/connection';
import { listLabs, type LabState, deleteLab } from './queries/labs';

/** A lab that has not been heard of for this long is gone. */
export const BEAT_LIMIT_MS = 15_000;

/** Rows of labs that ended without a word are kept this long, for whoever looks for them. */
const FORGET_AFTER_MS = 3_600_000;

export function findLabOfProcess(db: Db, pid: number): LabState | null {
	return listLabs(db).find((lab) => lab.pid === pid && lab.host === hostname()) ?? null;
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
