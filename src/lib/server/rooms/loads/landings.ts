/** Where loads ended, and how their pages are built: noted beside each load; of older loads at first asking. */
import { landingOf } from '$core/load/record/landing';
import { sql, type Db } from '../../base/db/connection';
import { findRecord } from './loads';

/** Read what is not noted yet of some loads, for once. @returns whether there was any */
export function noteLandings(db: Db, loadIds: readonly number[]): boolean {
	const unread = sql<{ id: number }>(
		db,
		'SELECT id FROM load WHERE markup IS NULL AND id IN (SELECT value FROM json_each(?))'
	).all(JSON.stringify(loadIds));
	if (!unread.length) return false;
	db.transaction(() => {
		for (const { id } of unread) {
			const record = findRecord(db, id);
			const columns = record ? landingOf(record) : { landed: null, markup: '' };
			sql(db, 'UPDATE load SET landed = @landed, markup = @markup WHERE id = @id').run({ id, ...columns });
		}
	})();
	return true;
}
