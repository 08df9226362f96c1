/** Changes of clients. */
import type { ClientInput } from '$core/clients/client';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { existingClient } from './clients';
import { deleteWithAll, insertClient, isUnderWay, setArchived, updateClient } from './queries/changes';
import { findClientByName } from './queries/clients';

/** @throws NotPossible when there is a client of that name @returns the id */
export function createClient(db: Db, client: ClientInput): number {
	checkName(db, client.name, null);
	return insertClient(db, client);
}

function checkName(db: Db, name: string, own: number | null): void {
	const id = findClientByName(db, name);
	if (id !== null && id !== own) throw new NotPossible(409, `There is a client “${name}” already.`, 'name');
}

/**
 * @param revision the one that was read; null to change it whatever happened since
 * @throws NotPossible for a client that is not there, a name that another has, or when somebody has saved meanwhile
 */
export function changeClient(db: Db, id: number, client: ClientInput, revision: number | null = null): void {
	const { revision: now } = existingClient(db, id);
	if (revision !== null && revision !== now)
		throw new NotPossible(
			409,
			'This client was saved in another window meanwhile. What you typed is still here. Open the client in another tab to compare; saving again puts yours over what is there.',
			'revision'
		);
	checkName(db, client.name, id);
	updateClient(db, id, client);
}

/** What is archived stays as it is and leaves the lists. */
export function archiveClient(db: Db, id: number, isArchived: boolean): void {
	existingClient(db, id);
	setArchived(db, id, isArchived ? nowIso() : null);
}

/** With its sites, pages, trials and loads. @throws NotPossible while one of its trials runs */
export function deleteClient(db: Db, id: number): void {
	db.transaction(() => {
		existingClient(db, id);
		if (isUnderWay(db, id)) throw new NotPossible(409, 'A trial of this client is running. Stop it first.');
		deleteWithAll(db, id);
	}).immediate();
}
