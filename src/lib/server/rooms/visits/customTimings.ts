/** Custom timings that the analyst defined for a site, for where else they are shown: in trials and watches. */
import type { CustomTiming } from '$core/field/visitSettings';
import { siteOfAddress } from '../clients/sites';
import type { Db } from '../../base/db/connection';
import { sourceOfSite } from './queries/sources';
import { sitesOf } from '../clients/view';

/** By name; of the site to which an address belongs, empty where it is nobody's. */
export function customTimingsAt(db: Db, clientId: number | null, url: string): ReadonlyMap<string, CustomTiming> {
	const site = clientId === null ? null : siteOfAddress(sitesOf(db, clientId), url);
	const timings = site ? (sourceOfSite(db, site.id)?.settings.timings ?? []) : [];
	return new Map(timings.map((timing) => [timing.name, timing]));
}
