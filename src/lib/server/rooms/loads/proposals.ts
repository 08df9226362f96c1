/** Components that the newest load of a site suggests, and what the known ones cost in it. */
import { ownerOf } from '$core/load/requests/owners';
import { attribute, proposeComponents } from '$core/setups/recognition';
import { hostsOf, type Site } from '../clients/sites';
import { sql, type Db } from '../../base/db/connection';
import { findRecord } from './loads';
import { knownComponents } from '../setups/components';

const MOST_PROPOSED = 12;

/** The newest load that succeeded of a page of these hosts; null without one. */
function newestLoad(db: Db, hosts: readonly string[]): number | null {
	const starts = hosts.flatMap((host) => [`http://${host}/`, `https://${host}/`]);
	// "0" is the sign after "/": what begins so lies between the two.
	return sql<{ id: number | null }>(
		db,
		`SELECT max(load.id) AS id FROM json_each(@starts) JOIN load
			ON load.url >= value AND load.url < substr(value, 1, length(value) - 1) || '0' WHERE status = 'ok'`
	).get({ starts: JSON.stringify(starts) })!.id;
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
