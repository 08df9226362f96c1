/** Components that the newest load of a site suggests, and what the known ones cost in it. */
import { ownerOf } from '$core/load/owners';
import { attribute, proposeComponents } from '$core/setups/recognition';
import { hostsOf, type Site } from '../clients/sites';
import { sql, type Db } from '../db/connection';
import { findRecord } from '../loads/loads';
import { knownComponents } from './components';

const MOST_PROPOSED = 12;

/** The newest load that succeeded of a page of these hosts; null without one. */
function newestLoad(db: Db, hosts: readonly string[]): number | null {
	const row = sql<{ id: number }>(
		db,
		`SELECT id FROM load WHERE status = 'ok' AND EXISTS
			(SELECT 1 FROM json_each(@hosts) WHERE instr(load.url || '/', '://' || value || '/'))
			ORDER BY id DESC LIMIT 1`
	).get({ hosts: JSON.stringify(hosts) });
	return row?.id ?? null;
}

export function proposalsOf(db: Db, site: Site) {
	const load = newestLoad(db, hostsOf(site));
	const record = load === null ? null : findRecord(db, load);
	if (load === null || !record) return null;
	const known = knownComponents(db, site.clientId);
	const isOwnHost = (host: string) => ownerOf(host, site.host, site.cdnHosts).kind !== 'third-party';
	return {
		load,
		url: record.url,
		costs: attribute(record, known, 'unattributed'),
		proposals: proposeComponents(record.requests, isOwnHost, known).slice(0, MOST_PROPOSED)
	};
}
