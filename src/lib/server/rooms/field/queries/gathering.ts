/** Whether the panel is being asked. */
import { sql, type Db } from '../../../base/db/connection';

export function isGatheringField(db: Db, clientId: number): boolean {
	const open = sql(
		db,
		`SELECT 1 FROM job WHERE subject_kind = 'client' AND subject_id = ? AND kind = 'gather' AND "order" ->> 'what' = 'field' AND status IN ('queued', 'leased')`
	);
	return open.get(clientId) !== undefined;
}
