/** The agency’s library of components, and which sites run on them. */
import * as v from 'valibot';
import { LibraryComponent } from '$core/setups/component';
import type { KnownComponent } from '$core/setups/recognition';
import { sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';

export interface SavedComponent extends LibraryComponent {
	id: number;
}

interface Row {
	id: number;
	kind: string;
	name: string;
	body: string;
}

const asComponent = ({ id, kind, name, body }: Row): SavedComponent => ({
	...v.parse(LibraryComponent, { ...JSON.parse(body), kind, name }),
	id
});

export function listComponents(db: Db): SavedComponent[] {
	return sql<Row>(db, 'SELECT * FROM component ORDER BY kind, name').all().map(asComponent);
}

/** @throws NotPossible for a component that is not there */
export function existingComponent(db: Db, id: number): SavedComponent {
	const row = sql<Row>(db, 'SELECT * FROM component WHERE id = ?').get(id);
	if (!row) throw new NotPossible(404, `There is no component ${id}.`);
	return asComponent(row);
}

/** @param id null for a new one @throws NotPossible when there is one of that kind and name @returns its id */
export function saveComponent(db: Db, id: number | null, { kind, name, ...rest }: LibraryComponent): number {
	const other = sql<{ id: number }>(db, 'SELECT id FROM component WHERE kind = ? AND name = ?').get(kind, name);
	if (other && other.id !== id) throw new NotPossible(409, `There is a ${kind} “${name}” already.`, 'name');
	const values = { id, kind, name, body: JSON.stringify(rest) };
	if (id === null) {
		const row = sql(db, 'INSERT INTO component (kind, name, body) VALUES (@kind, @name, @body)');
		return Number(row.run({ kind, name, body: values.body }).lastInsertRowid);
	}
	existingComponent(db, id);
	sql(db, 'UPDATE component SET kind = @kind, name = @name, body = @body WHERE id = @id').run(values);
	return id;
}

export interface DeletedComponent extends LibraryComponent {
	sites: { siteId: number; version: string; tier: string }[];
}

/** On its sites too, as far as they are still there. @throws NotPossible when there is one of its name again */
export function restoreComponent(db: Db, { sites, ...component }: DeletedComponent): void {
	const id = saveComponent(db, null, component);
	for (const { siteId, version, tier } of sites)
		if (sql(db, 'SELECT 1 FROM site WHERE id = ?').get(siteId))
			putOnSite(db, { siteId, componentId: id, version, tier });
}

export interface SiteComponent {
	component: SavedComponent;
	version: string;
	tier: string;
}

/** What a site runs on. */
export function componentsOfSite(db: Db, siteId: number): SiteComponent[] {
	return sql<Row & { version: string; tier: string }>(
		db,
		`SELECT component.*, version, tier FROM site_component JOIN component ON component.id = component_id
			WHERE site_id = ? ORDER BY kind, name`
	)
		.all(siteId)
		.map(({ version, tier, ...row }) => ({ component: asComponent(row), version, tier }));
}

/** @throws NotPossible for a component that is not there */
export function putOnSite(
	db: Db,
	{ siteId, componentId, version, tier }: { siteId: number; componentId: number; version: string; tier: string }
): void {
	existingComponent(db, componentId);
	sql(
		db,
		`INSERT INTO site_component (site_id, component_id, version, tier) VALUES (?, ?, ?, ?)
			ON CONFLICT (site_id, component_id) DO UPDATE SET version = excluded.version, tier = excluded.tier`
	).run(siteId, componentId, version, tier);
}

export function takeOffSite(db: Db, siteId: number, componentId: number): void {
	sql(db, 'DELETE FROM site_component WHERE site_id = ? AND component_id = ?').run(siteId, componentId);
}

/** Components by which a load of a client's page is read: those of its sites; all where none is named. */
export function knownComponents(db: Db, clientId: number | null): KnownComponent[] {
	const ofClient = sql<Row>(
		db,
		`SELECT DISTINCT component.* FROM component JOIN site_component ON component_id = component.id
			JOIN site ON site.id = site_id WHERE client_id = ?`
	).all(clientId);
	const rows = ofClient.length ? ofClient : sql<Row>(db, 'SELECT * FROM component').all();
	return rows.map(asComponent).map(({ id, name, recognition }) => ({ id, name, recognition }));
}

/** Names of the sites that run on each component. */
export function componentUses(db: Db): Map<number, string[]> {
	const rows = sql<{ id: number; site: string }>(
		db,
		'SELECT component_id AS id, site.name AS site FROM site_component JOIN site ON site.id = site_id ORDER BY site.name'
	).all();
	const uses = new Map<number, string[]>();
	for (const { id, site } of rows) uses.set(id, [...(uses.get(id) ?? []), site]);
	return uses;
}

/** Delete a component. @returns the sites that ran on it */
export function takeComponent(db: Db, id: number): DeletedComponent['sites'] {
	const sites = sql<DeletedComponent['sites'][number]>(
		db,
		'SELECT site_id AS siteId, version, tier FROM site_component WHERE component_id = ?'
	).all(id);
	sql(db, 'DELETE FROM component WHERE id = ?').run(id);
	return sites;
}
