/** Pages of sites: what arms, watches and standings point at. */
import { sql, type Db } from '../db/connection';
import { NotPossible } from '../http/refusal';

/** @throws NotPossible for a page that is not there */
export function checkPage(db: Db, pageId: number | null, path: string): void {
	if (pageId !== null && sql(db, 'SELECT 1 FROM page WHERE id = ?').get(pageId) === undefined)
		throw new NotPossible(422, `There is no page ${pageId}.`, path);
}
