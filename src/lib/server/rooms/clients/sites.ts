/** Sites of clients. */
import { isOfSite } from '$core/pages/address';
import type { Db } from '../../base/db/connection';
import { sitesOf, type Site } from './queries/sites';

/** As the API shows it: that there is an access, not which. */
export const publicSite = ({ previewAccess, ...site }: Site) => ({ ...site, hasPreviewAccess: previewAccess !== '' });

/** All names that a site answers to. */
export const hostsOf = ({ host, hosts }: Pick<Site, 'host' | 'hosts'>): string[] => [host, ...hosts];

/** The site of a client to which an address belongs; null for an address of none. */
export function siteOfAddress(sites: readonly Site[], url: string): Site | null {
	return sites.find((site) => isOfSite(url, hostsOf(site))) ?? null;
}

/** Conditions of a load of these pages: from nearest to the visitors of their site, unless a place was chosen. */
export function atPlaceOf<Some extends { place: string }>(
	db: Db,
	clientId: number | null,
	urls: readonly string[],
	conditions: Some
): Some {
	if (clientId === null || conditions.place !== USUAL_PLACE) return conditions;
	const sites = sitesOf(db, clientId);
	const places = new Set(urls.map((url) => siteOfAddress(sites, url)?.place ?? ''));
	const [place] = places;
	return places.size === 1 && place ? { ...conditions, place } : conditions;
}

/** Of conditions in which nobody chose one. */
const USUAL_PLACE = 'near';
