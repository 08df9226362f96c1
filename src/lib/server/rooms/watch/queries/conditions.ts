/** The frozen conditions of a watch. */
import { sql, type Db } from '../../../base/db/connection';
import type { NamedVersion } from '../../conditions/view';

export function frozenOf(db: Db, watchId: number): NamedVersion[] {
	return sql<NamedVersion>(
		db,
		'SELECT id, name, summary, hash FROM watch_conditions WHERE watch_id = ? ORDER BY position'
	).all(watchId);
}

export function insertFrozen(
	db: Db,
	watchId: number,
	position: number,
	{ id, name, summary, hash }: NamedVersion
): void {
	sql(db, 'INSERT INTO watch_conditions (watch_id, position, id, name, summary, hash) VALUES (?, ?, ?, ?, ?, ?)').run(
		watchId,
		position,
		id,
		name,
		summary,
		hash
	);
}

export function deleteFrozen(db: Db, watchId: number): void {
	sql(db, 'DELETE FROM watch_conditions WHERE watch_id = ?').run(watchId);
}
