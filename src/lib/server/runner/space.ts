/** A full disk ends a trial clearly: nothing is half written, and what was measured stays. */
import type { Db } from '../db/connection';
import { cancelJobs, releaseJobs } from '../db/jobs';
import { setTrialStatus } from '../db/trials';

/** Whether an error says that there is no more room. */
export function isFull(error: unknown): boolean {
	const { code } = error as { code?: string };
	return code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'SQLITE_IOERR_WRITE';
}

/** Stopping writes a few bytes into pages that exist; where even that fails, the lease runs out and the trial stays queued. */
export function haltForSpace(db: Db, trialId: number, owner: string): void {
	try {
		db.transaction(() => {
			releaseJobs(db, owner);
			cancelJobs(db, trialId);
			setTrialStatus(
				db,
				trialId,
				'stopped',
				'The disk is full, so the trial was stopped. What was measured is kept. Make room in the data folder, then press “Go on”.'
			);
		}).immediate();
	} catch (error) {
		if (!isFull(error)) throw error;
	}
}
