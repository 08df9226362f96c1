/** The jobs of a trial by their places: what is planned, open, done. */
import type { PlannedLoad } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { insertJob, type JobPlace } from '../../base/queue/jobs';
import { hasJob, isDown, insertTrialPlace } from './queries/places';

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
		const place = { ...planned, trialId, retry: 0 };
		if (!hasJob(db, place)) insertAt(db, place, planned.settle ? 'settle' : 'load', notBefore[i] ?? null);
	});
}

function insertAt(db: Db, place: JobPlace, kind: 'load' | 'settle', notBefore: string | null): void {
	const jobId = insertJob(db, { kind, subject: { kind: 'trial', id: place.trialId }, notBefore });
	insertTrialPlace(db, jobId, place);
}

/** Most further tries of a load that failed, at the end of its round. */
export const MOST_RETRIES = 2;

/** After a load that failed: load its place once more, at the end of its round. @returns whether that was queued */
export function retryPlace(db: Db, place: JobPlace): boolean {
	if (place.warmup || place.retry >= MOST_RETRIES || isDown(db, place)) return false;
	const next = { ...place, retry: place.retry + 1 };
	if (hasJob(db, next)) return false;
	insertAt(db, next, 'load', null);
	return true;
}
