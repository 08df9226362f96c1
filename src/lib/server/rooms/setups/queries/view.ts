/** How many visits a month the pages of a site have. */
import { sql, type Db } from '../../../base/db/connection';
import type { Site } from '../../clients/view';

/** Visits a month of a site, as its traffic table says; null without one. */
export function visitsOf(db: Db, { id, restVisits }: Site): number | null {
	const row = sql<{ visits: number | null }>(db, 'SELECT sum(visits) AS visits FROM page WHERE site_id = ?').get(id);
	return row?.visits == null ? null : row.visits + restVisits;
}
