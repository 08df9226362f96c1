/** Clients and their sites. */
import type { Language } from '$core/wording/words';
import { sql, type Db } from '../db/connection';
import { NotPossible } from '../http/refusal';

export interface Client {
	id: number;
	name: string;
	note: string;
	sites: Site[];
}

export interface Site {
	id: number;
	host: string;
	name: string;
	role: 'own' | 'competitor' | 'bench';
	/** Hosts of other domains that serve its own files, by comma. */
	cdnHosts: string;
}

export function listClients(db: Db): Client[] {
	const clients = sql<{ id: number; name: string; note: string }>(db, 'SELECT * FROM client ORDER BY name').all();
	return clients.map((client) => ({
		...client,
		sites: sql<Site>(
			db,
			'SELECT id, host, name, role, cdn_hosts AS cdnHosts FROM site WHERE client_id = ? ORDER BY id'
		).all(client.id)
	}));
}

export function insertClient(
	db: Db,
	name: string,
	note: string,
	sites: readonly Omit<Site, 'id' | 'cdnHosts'>[]
): number {
	const { lastInsertRowid } = sql(db, 'INSERT INTO client (name, note) VALUES (?, ?)').run(name, note);
	for (const site of sites)
		sql(db, 'INSERT INTO site (client_id, host, name, role) VALUES (?, ?, ?, ?)').run(
			lastInsertRowid,
			site.host,
			site.name,
			site.role
		);
	return Number(lastInsertRowid);
}

/** Hosts that serve the files of a client's site although their domain is another's. Nobody else's sites count. */
export function cdnHostsOf(db: Db, clientId: number | null, siteHost: string): string[] {
	if (clientId === null) return [];
	const row = sql<{ hosts: string }>(db, 'SELECT cdn_hosts AS hosts FROM site WHERE client_id = ? AND host = ?').get(
		clientId,
		siteHost.replace(/:\d+$/, '')
	);
	return row?.hosts ? row.hosts.split(',') : [];
}

export function setCdnHosts(db: Db, siteId: number, hosts: readonly string[]): void {
	sql(db, 'UPDATE site SET cdn_hosts = ? WHERE id = ?').run(hosts.join(','), siteId);
}

export function hasClient(db: Db, id: number): boolean {
	return sql(db, 'SELECT 1 FROM client WHERE id = ?').get(id) !== undefined;
}

/** @throws NotPossible for a client that is not there */
export function checkClient(db: Db, clientId: number | null): void {
	if (clientId !== null && !hasClient(db, clientId))
		throw new NotPossible(422, `There is no client ${clientId}.`, 'clientId');
}

/** Of what the client reads; English for nobody in particular. */
export function languageOfClient(db: Db, clientId: number | null): Language {
	const row = sql<{ language: Language }>(db, 'SELECT language FROM client WHERE id = ?').get(clientId);
	return row?.language ?? 'en';
}

export function findClientByName(db: Db, name: string): number | null {
	return sql<{ id: number }>(db, 'SELECT id FROM client WHERE name = ?').get(name)?.id ?? null;
}
