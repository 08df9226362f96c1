/** Conditions that the agency made or changed. */
import { BUILT_IN_CONDITIONS, completeConditions, type Conditions } from '$core/load/conditions/conditions';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export interface SavedConditions extends Conditions {
	/** Ships with Zafra; deleting it brings back what ships. */
	builtIn: boolean;
	changed: boolean;
}

export function listConditions(db: Db): SavedConditions[] {
	const rows = sql<{ id: string; body: string }>(db, 'SELECT id, body FROM conditions ORDER BY position, id').all();
	const kept = new Map(rows.map((row) => [row.id, completeConditions(JSON.parse(row.body) as Conditions)]));
	const shipped = BUILT_IN_CONDITIONS.map((conditions) => ({
		...(kept.get(conditions.id) ?? conditions),
		builtIn: true,
		changed: kept.has(conditions.id)
	}));
	const own = [...kept.values()].filter((conditions) => !BUILT_IN_CONDITIONS.some((item) => item.id === conditions.id));
	return [...shipped, ...own.map((conditions) => ({ ...conditions, builtIn: false, changed: true }))];
}

export function saveConditions(db: Db, conditions: Conditions): void {
	sql(
		db,
		`INSERT INTO conditions (id, position, body, changed_at) VALUES (?, (SELECT coalesce(max(position), 0) + 1 FROM conditions), ?, ?)
		ON CONFLICT (id) DO UPDATE SET body = excluded.body, changed_at = excluded.changed_at`
	).run(conditions.id, JSON.stringify(conditions), nowIso());
}

/** Of conditions that ship, only the changes go. */
export function deleteSavedConditions(db: Db, id: string): void {
	sql(db, 'DELETE FROM conditions WHERE id = ?').run(id);
}
