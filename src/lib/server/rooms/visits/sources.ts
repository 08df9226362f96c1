/** Sites with a visits' script: their keys and what is reported. */
import { USUAL_VISIT_SETTINGS, VisitSettings } from '$core/field/visitSettings';
import { hostsOf } from '../clients/sites';
import { nowIso, type Db } from '../../base/db/connection';
import { drawKey } from './key';
import { sourceOfSite, type VisitSource, upsertSource } from './queries/sources';
import { existingSite } from '../clients/view';

/** The source of a site; made with the usual settings where it has none. @throws NotPossible for no such site */
export function ensureSource(db: Db, siteId: number): VisitSource {
	return sourceOfSite(db, siteId) ?? saveSource(db, siteId, USUAL_VISIT_SETTINGS);
}

/** The key stays. @throws NotPossible for a site that is not there */
export function saveSource(db: Db, siteId: number, settings: VisitSettings): VisitSource {
	existingSite(db, siteId);
	upsertSource(db, { siteId, key: drawKey(), settings: JSON.stringify(settings), now: nowIso() });
	return sourceOfSite(db, siteId)!;
}

/** Hosts from which page views of a site are taken. */
export const hostsOfSource = (db: Db, { siteId }: VisitSource): string[] => hostsOf(existingSite(db, siteId));
