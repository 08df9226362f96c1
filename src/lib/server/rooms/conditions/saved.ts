/** Conditions: those that ship, as the analyst changed them, and the analyst's own. */
import { completeConditions, WAY_OF_MEASURING, type Conditions } from '$core/load/conditions/conditions';
import type { Db } from '../../base/db/connection';
import { listConditions } from './queries/saved';

/** As they are written down; how the lab measures is no part of them yet. */
export function findSaved(db: Db, id: string): Conditions | null {
	const saved = listConditions(db).find((conditions) => conditions.id === id);
	if (!saved) return null;
	const { builtIn: _builtIn, changed: _changed, ...conditions } = saved;
	return completeConditions(conditions);
}

/** As a trial freezes them. */
export function findConditions(db: Db, id: string): Conditions | null {
	const saved = findSaved(db, id);
	return saved && { ...saved, ...WAY_OF_MEASURING };
}

/** Their keys, as an error message lists them. */
export function namesOfConditions(db: Db): string {
	return listConditions(db)
		.map((conditions) => conditions.id)
		.join(', ');
}

/** For choosing some. */
export function conditionNames(db: Db): { id: string; name: string }[] {
	return listConditions(db).map(({ id, name }) => ({ id, name }));
}
