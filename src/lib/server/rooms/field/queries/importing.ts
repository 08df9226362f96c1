/** The page of a site that has an address. */
import { pageKey } from '$core/pages/address';
import { sql, type Db } from '../../../base/db/connection';

export function findPage(db: Db, siteId: number, url: string): number | null {
	return (
		sql<{ id: number }>(db, 'SELECT id FROM page WHERE site_id = ? AND key = ?').get(siteId, pageKey(url))?.id ?? null
	);
}
