/** Where loads ended, and how their pages are built: noted beside each load; of older loads at first asking. */
import { landingOf } from '$core/load/record/landing';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';
import { withoutMarkup, setLanding } from './queries/landings';

/** Read what is not noted yet of some loads, for once. @returns whether there was any */
export function noteLandings(db: Db, loadIds: readonly number[]): boolean {
	const unread = withoutMarkup(db, loadIds);
	if (!unread.length) return false;
	db.transaction(() => {
		for (const { id } of unread) {
			const record = findRecord(db, id);
			const columns = record ? landingOf(record) : { landed: null, markup: '' };
			setLanding(db, id, columns);
		}
	})();
	return true;
}
