/** The jobs of a trial by their slots: what is planned, open, done. */
import type { PlannedLoad } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { insertJob, type TrialSlot } from '../../base/queue/jobs';
import { hasJob, isDown, insertTrialSlot } from './queries/slots';

/**
 * Places that have a job already keep it: pressing start twice adds nothing.
 * @param notBefore one moment (UTC ISO) per load of the plan, or none
 */
export function insertPlan(
	db: Db,
	trialId: number,
	plan: readonly PlannedLoad[],
	notBefore: readonly string[] = []
): void {
	plan.forEach((planned, i) => {
		const slot = { ...planned, trialId, retry: 0 };
		if (!hasJob(db, slot)) insertAt(db, slot, planned.settle ? 'settle' : 'load', notBefore[i] ?? null);
	});
}

function insertAt(db: Db, slot: TrialSlot, kind: 'load' | 'settle', notBefore: string | null): void {
	const jobId = insertJob(db, { kind, subject: { kind: 'trial', id: slot.trialId }, notBefore });
	insertTrialSlot(db, jobId, slot);
}

/** Most further tries of a load that failed, at the end of its round. */
export const MOST_RETRIES = 2;

/** After a load that failed: load its slot once more, at the end of its round. @returns whether that was queued */
export function retrySlot(db: Db, slot: TrialSlot): boolean {
	if (slot.warmup || slot.retry >= MOST_RETRIES || isDown(db, slot)) return false;
	const next = { ...slot, retry: slot.retry + 1 };
	if (hasJob(db, next)) return false;
	insertAt(db, next, 'load', null);
	return true;
}
