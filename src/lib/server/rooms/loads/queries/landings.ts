/** Where loads ended. */
import { sql, type Db } from '../../../base/db/connection';

/** Those of some loads whose page was not noted yet. */
export const withoutMarkup = (db: Db, loadIds: readonly number[]): { id: number }[] =>
	sql<{ id: number }>(db, 'SELECT id FROM load WHERE markup IS NULL AND id IN (SELECT value FROM json_each(?))').all(
		JSON.stringify(loadIds)
	);

export function setLanding(db: Db, id: number, landing: { landed: string | null; markup: string }): void {
	sql(db, 'UPDATE load SET landed = @landed, markup = @markup WHERE id = @id').run({ id, ...landing });
}
