/** Putting visits away: hours become days, single page views go, and what a client does not want kept any longer. */
import type { Db } from '../../base/db/connection';
import { mergeHours, deleteRaw } from './queries/merge';

/**
 * Do the next piece of work.
 * @returns whether there may be more
 */
export function putAway(db: Db, now: number): boolean {
	return mergeHours(db, now) || deleteRaw(db, now);
}
