/** Clients: what is asked of them all over. Changes are in `commands`, their sites in `sites`. */
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { sitesOf, type Site } from './queries/sites';
import { listClients, type Client, findClient, hasClient } from './queries/clients';

/** @throws NotPossible for a client that is not there */
export function existingClient(db: Db, id: number): Client {
	const client = findClient(db, id);
	if (!client) throw new NotPossible(404, `There is no client ${id}.`);
	return client;
}

/** Clients with their sites, by name. */
export function clientsWithSites(db: Db): (Client & { sites: Site[] })[] {
	return listClients(db).map((client) => ({ ...client, sites: sitesOf(db, client.id) }));
}

/** @throws NotPossible for a client that is not there */
export function checkClient(db: Db, clientId: number | null): void {
	if (clientId !== null && !hasClient(db, clientId))
		throw new NotPossible(422, `There is no client ${clientId}.`, 'clientId');
}
