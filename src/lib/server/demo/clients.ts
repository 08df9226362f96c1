/** Puts the demonstration's clients into a data folder: their sites, pages, traffic, components and choices. */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { SiteInput } from '$core/clients/site';
import { LineDecoder } from '$core/formats/textLines';
import { guessColumns, TrafficReader, type TrafficTable } from '$core/pages/traffic';
import { archiveClient, createClient } from '../rooms/clients/commands';
import { sql, type Db } from '../base/db/connection';
import { readFact, writeFact } from '../base/db/facts';
import { saveTraffic } from '../rooms/pages/commands';
import { ROOT } from '../base/settings';
import { CLIENTS, COMPONENTS, type ScenarioClient } from './scenario';
import { findClientByName, insertSite, sitesOf, saveState } from '../rooms/clients/view';
import { savePages } from '../rooms/pages/view';
import { listComponents, putOnSite, saveComponent } from '../rooms/setups/view';

const FACT = 'demonstration clients';
const TRAFFIC = join(ROOT, 'demo/traffic');

/** Once: what the analyst changed since stays. Clients of an earlier demonstration get what they lack. */
export function insertScenario(db: Db): void {
	if (readFact(db, FACT)) return;
	const names = new Set(listComponents(db).map(({ name }) => name));
	for (const component of COMPONENTS) if (!names.has(component.name)) saveComponent(db, null, component);
	for (const client of CLIENTS) insertClient(db, client);
	writeFact(db, FACT, new Date().toISOString());
}

function insertClient(db: Db, { client, isArchived, sites }: ScenarioClient): void {
	const clientId = findClientByName(db, client.name);
	const id = clientId ?? createClient(db, v.parse(ClientInput, client));
	for (const site of sites) {
		const own = sitesOf(db, id).find(({ host }) => host === site.host);
		const { types = {}, chosen = [], components = [], states = [], ...input } = site;
		const siteId = own?.id ?? insertSite(db, id, v.parse(SiteInput, input));
		insertPages(db, { siteId, host: site.host, types, chosen });
		insertComponents(db, siteId, components);
		for (const state of states) saveState(db, siteId, state);
	}
	if (isArchived && clientId === null) archiveClient(db, id, true);
}

function insertPages(
	db: Db,
	{ siteId, host, types, chosen }: { siteId: number; host: string; types: Record<string, string>; chosen: string[] }
): void {
	const urlOf = (path: string) => `https://${host}${path}`;
	const file = join(TRAFFIC, `${host}.csv`);
	if (existsSync(file)) saveTraffic(db, siteId, readTable(file, host));
	const pages = Object.entries(types).map(([path, type]) => ({ url: urlOf(path), type }));
	savePages(db, siteId, pages, 'sitemap');
	const choose = sql(db, 'UPDATE page SET is_chosen = 1 WHERE site_id = ? AND url = ?');
	for (const path of chosen) choose.run(siteId, urlOf(path));
}

/** Small enough to be read at once. */
function readTable(file: string, host: string): TrafficTable {
	const decoder = new LineDecoder();
	const text = decoder.write(readFileSync(file)) + decoder.end();
	const [head = [], ...rows] = Papa.parse<string[]>(text, { skipEmptyLines: true }).data;
	const reader = new TrafficReader({ columns: guessColumns(head)!, hosts: [host] });
	for (const row of rows) reader.line(row);
	return reader.end();
}

function insertComponents(db: Db, siteId: number, names: readonly (readonly [name: string, tier: string])[]): void {
	const library = listComponents(db);
	for (const [name, tier] of names) {
		const component = library.find((entry) => entry.name === name);
		if (component) putOnSite(db, { siteId, componentId: component.id, version: '', tier });
	}
}
