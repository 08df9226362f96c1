/** Clients and their sites. */
import { sql, type Db } from './connection';

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

/** Hosts that serve the files of the site with this host although their domain is another's. */
export function cdnHostsOf(db: Db, siteHost: string): string[] {
	const rows = sql<{ hosts: string }>(db, "SELECT cdn_hosts AS hosts FROM site WHERE host = ? AND cdn_hosts <> ''").all(
		siteHost.replace(/:\d+$/, '')
	);
	return [...new Set(rows.flatMap((row) => row.hosts.split(',')))];
}

export function setCdnHosts(db: Db, siteId: number, hosts: readonly string[]): void {
	sql(db, 'UPDATE site SET cdn_hosts = ? WHERE id = ?').run(hosts.join(','), siteId);
}

export function hasClient(db: Db, id: number): boolean {
	return sql(db, 'SELECT 1 FROM client WHERE id = ?').get(id) !== undefined;
}

export function findClientByName(db: Db, name: string): number | null {
	return sql<{ id: number }>(db, 'SELECT id FROM client WHERE name = ?').get(name)?.id ?? null;
}

export function readFact(db: Db, name: string): string | null {
	return sql<{ value: string }>(db, 'SELECT value FROM fact WHERE name = ?').get(name)?.value ?? null;
}

export function writeFact(db: Db, name: string, value: string): void {
	sql(db, 'INSERT OR REPLACE INTO fact (name, value) VALUES (?, ?)').run(name, value);
}
