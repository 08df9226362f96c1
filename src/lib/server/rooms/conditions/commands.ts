/** Changes of the conditions under which pages are loaded. */
import { withStoredSecrets, type Conditions } from '$core/load/conditions/conditions';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { deleteSavedConditions, saveConditions } from './queries/saved';
import { findConditions } from './saved';

/** Words that are addresses of the workshop. */
const TAKEN = ['new'];

/**
 * @param from conditions whose secrets go over where they are not shown; null for none
 * @throws NotPossible for a taken key
 */
export function createConditions(db: Db, conditions: Conditions, from: string | null): void {
	const { id } = conditions;
	if (TAKEN.includes(id) || findConditions(db, id)) throw new NotPossible(409, `The key “${id}” is taken.`, 'id');
	keep(db, conditions, from);
}

/** @throws NotPossible for conditions that there are not */
export function changeConditions(db: Db, id: string, conditions: Conditions): void {
	existing(db, id);
	keep(db, { ...conditions, id }, id);
}

/** Of conditions that ship, only the changes go. @throws NotPossible for conditions that there are not */
export function deleteConditions(db: Db, id: string): void {
	existing(db, id);
	deleteSavedConditions(db, id);
}

function existing(db: Db, id: string): void {
	if (!findConditions(db, id)) throw new NotPossible(404, `There are no conditions “${id}”.`);
}

function keep(db: Db, conditions: Conditions, secretsFrom: string | null): void {
	const stored = secretsFrom === null ? null : findConditions(db, secretsFrom);
	let whole: Conditions;
	try {
		whole = withStoredSecrets(conditions, stored);
	} catch (problem) {
		throw new NotPossible(422, (problem as Error).message, 'headers');
	}
	saveConditions(db, whole);
}
