/**
 * The conditions of a watch, frozen when it began: changed ones of the same name are taken only when somebody moves the
 * watch to them, since its history parts there.
 */
import { describeConditions, WAY_OF_MEASURING, type Conditions } from '$core/load/conditions/conditions';
import { findConditions, findSaved } from '../conditions/saved';
import { freezeConditions, thawConditions, type NamedVersion } from '../conditions/versions';
import { conditionsHash } from '../../base/db/functions';
import { sql, type Db } from '../../base/db/connection';
import type { Watch } from './watches';

/** Conditions that were changed after a watch began. */
export interface ChangedConditions {
	id: string;
	name: string;
	/** One line each, as `describeConditions` says it. */
	before: string;
	now: string;
}

function frozenOf(db: Db, watchId: number): NamedVersion[] {
	return sql<NamedVersion>(
		db,
		'SELECT id, name, summary, hash FROM watch_conditions WHERE watch_id = ? ORDER BY position'
	).all(watchId);
}

/**
 * Freeze those that a watch is asked for and does not have yet; others are let go. As they are written down: how the
 * lab measures is added when a reading is queued.
 */
export function freezeForWatch(db: Db, watchId: number, ids: readonly string[]): void {
	const frozen = frozenOf(db, watchId);
	sql(db, 'DELETE FROM watch_conditions WHERE watch_id = ?').run(watchId);
	ids.forEach((id, position) => {
		const saved = findSaved(db, id);
		const version = frozen.find((known) => known.id === id) ?? (saved && freezeConditions(db, saved));
		if (version) insertFrozen(db, watchId, position, version);
	});
}

function insertFrozen(db: Db, watchId: number, position: number, { id, name, summary, hash }: NamedVersion): void {
	sql(db, 'INSERT INTO watch_conditions (watch_id, position, id, name, summary, hash) VALUES (?, ?, ?, ?, ?, ?)').run(
		watchId,
		position,
		id,
		name,
		summary,
		hash
	);
}

/** Under which a reading is made; those without a frozen version (of an earlier archive) as saved. */
export function conditionsOfWatch(db: Db, { id: watchId, settings }: Watch): Conditions[] {
	const frozen = frozenOf(db, watchId);
	return settings.conditions.flatMap((id) => {
		const version = frozen.find((known) => known.id === id);
		if (!version) return findConditions(db, id) ?? [];
		return { ...thawConditions(db, version), ...WAY_OF_MEASURING };
	});
}

/** Those of a watch that were changed in the workshop since it began. */
export function changedConditions(db: Db, watch: Watch): ChangedConditions[] {
	return frozenOf(db, watch.id).flatMap((version) => {
		const saved = findSaved(db, version.id);
		if (!saved || conditionsHash(saved) === version.hash) return [];
		const before = describeConditions(thawConditions(db, version));
		return { id: version.id, name: version.name, before, now: describeConditions(saved) };
	});
}

/** From the next reading on under the conditions as they are now. */
export function moveToPresentConditions(db: Db, watch: Watch): void {
	db.transaction(() => {
		sql(db, 'DELETE FROM watch_conditions WHERE watch_id = ?').run(watch.id);
		freezeForWatch(db, watch.id, watch.settings.conditions);
	})();
}
