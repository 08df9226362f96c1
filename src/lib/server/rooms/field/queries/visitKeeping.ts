/** Sites that have visits, in their own database, and sites that there are. */
import { sql, type Db } from '../../../base/db/connection';

export const sitesWithVisits = (visits: Db): number[] =>
	sql<{ id: number }>(visits, 'SELECT DISTINCT site_id AS id FROM place')
		.all()
		.map(({ id }) => id);

export const isSite = (db: Db, id: number): boolean => sql(db, 'SELECT 1 FROM site WHERE id = ?').get(id) !== undefined;
