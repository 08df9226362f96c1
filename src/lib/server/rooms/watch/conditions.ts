/**
 * The conditions of a watch, frozen when it began: changed ones of the same name are taken only when somebody moves the
 * watch to them, since its history parts there.
 */
import { describeConditions, WAY_OF_MEASURING, type Conditions } from '$core/load/conditions/conditions';
import { findConditions, findSaved } from '../conditions/saved';
import { conditionsHash } from '../../base/db/functions';
import type { Db } from '../../base/db/connection';
import type { Watch } from './queries/watches';
import { frozenOf, insertFrozen, deleteFrozen } from './queries/conditions';
import { freezeConditions, thawConditions } from '../conditions/view';

/** Conditions that were changed after a watch began. */
export interface ChangedConditions {
	id: string;
	name: string;
	/** One line each, as `describeConditions` says it. */
	before: string;
	now: string;
}

/**
 * Freeze those that a watch is asked for and does not have yet; others are let go. As they are written down: how the
 * lab measures is added when a reading is queued.
 */
export function freezeForWatch(db: Db, watchId: number, ids: readonly string[]): void {
	const frozen = frozenOf(db, watchId);
	deleteFrozen(db, watchId);
	ids.forEach((id, position) => {
		const saved = findSaved(db, id);
		const version = frozen.find((candidate) => candidate.id === id) ?? (saved && freezeConditions(db, saved));
		if (version) insertFrozen(db, watchId, position, version);
	});
}

/** Under which a reading is made; those without a frozen version (of an earlier archive) as saved. */
export function conditionsOfWatch(db: Db, { id: watchId, settings }: Watch): Conditions[] {
	const frozen = frozenOf(db, watchId);
	return settings.conditions.flatMap((id) => {
		const version = frozen.find((candidate) => candidate.id === id);
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
		deleteFrozen(db, watch.id);
		freezeForWatch(db, watch.id, watch.settings.conditions);
	})();
}
