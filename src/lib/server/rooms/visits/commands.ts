/** Beginning to take visits of a site, and changing what its script reports. */
import type { VisitSettings } from '$core/field/visitSettings';
import type { Db } from '../../base/db/connection';
import { ensureSource, saveSource } from './sources';
import { sourceOfSite, type VisitSource } from './queries/sources';
import { deleteVisitsOf } from './queries/store';

/** @throws NotPossible for a site that is not there */
export function beginVisits(main: Db, visits: Db, siteId: number): VisitSource {
	const existing = sourceOfSite(main, siteId);
	if (existing) return existing;
	const source = ensureSource(main, siteId);
	// The number may have been another site's, whose visits are not put away yet.
	deleteVisitsOf(visits, siteId);
	return source;
}

/** @throws NotPossible for a site that is not there */
export function changeVisits(main: Db, visits: Db, siteId: number, settings: VisitSettings): VisitSource {
	beginVisits(main, visits, siteId);
	return saveSource(main, siteId, settings);
}
