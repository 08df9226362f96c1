/** Sites of clients. */
import type { SiteInput } from '$core/clients/site';
import { sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';

export interface Site extends SiteInput {
	id: number;
	clientId: number;
	/** Visits a month to pages that are not in the list. */
	restVisits: number;
}

interface SiteRow {
	id: number;
	client_id: number;
	name: string;
	host: string;
	scheme: Site['scheme'];
	role: Site['role'];
	hosts: string;
	cdn_hosts: string;
	preview_host: string;
	preview_access: string;
	place: string;
	rest_visits: number;
}

const listOf = (text: string) => text.split(',').filter(Boolean);

const asSite = (row: SiteRow): Site => ({
	id: row.id,
	clientId: row.client_id,
	name: row.name,
	host: row.host,
	scheme: row.scheme,
	role: row.role,
	hosts: listOf(row.hosts),
	cdnHosts: listOf(row.cdn_hosts),
	previewHost: row.preview_host,
	previewAccess: row.preview_access,
	place: row.place,
	restVisits: row.rest_visits
});

/** Own sites first, then competitors, then benches. */
export function sitesOf(db: Db, clientId: number): Site[] {
	return sql<SiteRow>(
		db,
		`SELECT * FROM site WHERE client_id = ?
			ORDER BY CASE role WHEN 'own' THEN 0 WHEN 'competitor' THEN 1 ELSE 2 END, id`
	)
		.all(clientId)
		.map(asSite);
}

export function findSite(db: Db, id: number): Site | null {
	const row = sql<SiteRow>(db, 'SELECT * FROM site WHERE id = ?').get(id);
	return row ? asSite(row) : null;
}

/** Of any client, newest first. */
export function sitesWithHost(db: Db, host: string): Site[] {
	return sql<SiteRow>(db, 'SELECT * FROM site WHERE host = ? ORDER BY id DESC').all(host).map(asSite);
}

/** @throws NotPossible for a site that is not there */
export function existingSite(db: Db, id: number): Site {
	const site = findSite(db, id);
	if (!site) throw new NotPossible(404, `There is no site ${id}.`);
	return site;
}

const columnsOf = ({ name, host, scheme, role, hosts, cdnHosts, previewHost, previewAccess, place }: SiteInput) => ({
	name,
	host,
	scheme,
	role,
	hosts: hosts.join(','),
	cdnHosts: cdnHosts.join(','),
	previewHost,
	previewAccess,
	place
});

/** @throws NotPossible when the client has a site of that host @returns the id */
export function insertSite(db: Db, clientId: number, site: SiteInput): number {
	checkHost(db, clientId, site.host, null);
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO site (client_id, name, host, scheme, role, hosts, cdn_hosts, preview_host, preview_access, place)
			VALUES (@clientId, @name, @host, @scheme, @role, @hosts, @cdnHosts, @previewHost, @previewAccess, @place)`
	).run({ clientId, ...columnsOf(site) });
	return Number(lastInsertRowid);
}

/** @throws NotPossible for a site that is not there, or a host that the client has already */
export function changeSite(db: Db, id: number, site: SiteInput): void {
	checkHost(db, existingSite(db, id).clientId, site.host, id);
	sql(
		db,
		`UPDATE site SET name = @name, host = @host, scheme = @scheme, role = @role, hosts = @hosts, cdn_hosts = @cdnHosts,
			preview_host = @previewHost, preview_access = @previewAccess, place = @place WHERE id = @id`
	).run({ id, ...columnsOf(site) });
}

function checkHost(db: Db, clientId: number, host: string, own: number | null): void {
	const row = sql<{ id: number; name: string }>(db, 'SELECT id, name FROM site WHERE client_id = ? AND host = ?').get(
		clientId,
		host
	);
	if (row && row.id !== own)
		throw new NotPossible(409, `This client has a site at ${host} already: “${row.name}”.`, 'host');
}

/** Clients that have a site of that host too: their work may be about the same pages. */
export function otherClientsOf(db: Db, { host, clientId }: Pick<Site, 'host' | 'clientId'>): string[] {
	return sql<{ name: string }>(
		db,
		`SELECT DISTINCT client.name FROM site JOIN client ON client.id = client_id
			WHERE host = ? AND client_id <> ? ORDER BY client.name`
	)
		.all(host, clientId)
		.map(({ name }) => name);
}

/** With its pages and visitor states. @throws NotPossible for a site that is not there */
export function deleteSite(db: Db, id: number): void {
	if (sql(db, 'DELETE FROM site WHERE id = ?').run(id).changes === 0)
		throw new NotPossible(404, `There is no site ${id}.`);
}

export function setRestVisits(db: Db, id: number, visits: number): void {
	sql(db, 'UPDATE site SET rest_visits = ? WHERE id = ?').run(visits, id);
}

/** Hosts that serve the files of a client's site although their domain is another's. Nobody else's sites count. */
export function cdnHostsOf(db: Db, clientId: number | null, siteHost: string): string[] {
	if (clientId === null) return [];
	const row = sql<{ hosts: string }>(db, 'SELECT cdn_hosts AS hosts FROM site WHERE client_id = ? AND host = ?').get(
		clientId,
		siteHost.replace(/:\d+$/, '')
	);
	return row ? listOf(row.hosts) : [];
}

/** The access to a preview by its host; null for every other address. */
export function previewAccessOf(db: Db, url: string): { username: string; password: string } | null {
	if (!URL.canParse(url)) return null;
	const row = sql<{ access: string }>(
		db,
		`SELECT preview_access AS access FROM site WHERE preview_host = ? AND preview_access <> '' LIMIT 1`
	).get(new URL(url).host);
	if (!row) return null;
	const at = row.access.indexOf(':');
	return { username: row.access.slice(0, at), password: row.access.slice(at + 1) };
}
