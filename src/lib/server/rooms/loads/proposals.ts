/** Components that the newest load of a site suggests, and what the known ones cost in it. */
import { ownerOf } from '$core/load/requests/owners';
import { attribute, proposeComponents } from '$core/setups/recognition';
import { hostsOf } from '../clients/sites';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';
import { newestLoad } from './queries/proposals';
import type { Site } from '../clients/view';
import { knownComponents } from '../setups/view';

const MOST_PROPOSED = 12;

export function proposalsOf(db: Db, site: Site) {
	const load = newestLoad(db, hostsOf(site));
	const record = load === null ? null : findRecord(db, load);
	if (load === null || !record) return null;
	const components = knownComponents(db, site.clientId);
	const isOwnHost = (host: string) => ownerOf(host, site.host, site.cdnHosts).kind !== 'third-party';
	return {
		load,
		url: record.url,
		costs: attribute(record, components, 'unattributed'),
		proposals: proposeComponents(record.requests, isOwnHost, components).slice(0, MOST_PROPOSED)
	};
}
