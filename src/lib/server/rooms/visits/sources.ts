/** Sites with a visits' script: their keys and what is reported. */
import * as v from 'valibot';
import { USUAL_VISIT_SETTINGS, VisitSettings } from '$core/field/visitSettings';
import { existingSite, hostsOf } from '../clients/sites';
import { nowIso, sql, type Db } from '../../base/db/connection';
import { drawKey } from './key';

export interface VisitSource {
	siteId: number;
	key: string;
	settings: VisitSettings;
}

interface Row {
	site_id: number;
	key: string;
	settings: string;
}

const asSource = ({ site_id, key, settings }: Row): VisitSource => ({
	siteId: site_id,
	key,
	settings: v.parse(VisitSettings, JSON.parse(settings))
});

export function sourceOfSite(db: Db, siteId: number): VisitSource | null {
	const row = sql<Row>(db, 'SELECT * FROM visit_source WHERE site_id = ?').get(siteId);
	return row ? asSource(row) : null;
}

export function sourceByKey(db: Db, key: string): VisitSource | null {
	const row = sql<Row>(db, 'SELECT * FROM visit_source WHERE key = ?').get(key);
	return row ? asSource(row) : null;
}

export function allSources(db: Db): VisitSource[] {
	return sql<Row>(db, 'SELECT * FROM visit_source ORDER BY site_id').all().map(asSource);
}

/** The source of a site; made with the usual settings where it has none. @throws NotPossible for no such site */
export function ensureSource(db: Db, siteId: number): VisitSource {
	return sourceOfSite(db, siteId) ?? saveSource(db, siteId, USUAL_VISIT_SETTINGS);
}

/** The key stays. @throws NotPossible for a site that is not there */
export function saveSource(db: Db, siteId: number, settings: VisitSettings): VisitSource {
	existingSite(db, siteId);
	sql(
		db,
		`INSERT INTO visit_source (site_id, key, settings, created_at) VALUES (@siteId, @key, @settings, @now)
			ON CONFLICT (site_id) DO UPDATE SET settings = excluded.settings`
	).run({ siteId, key: drawKey(), settings: JSON.stringify(settings), now: nowIso() });
	return sourceOfSite(db, siteId)!;
}

/** Hosts from which page views of a site are taken. */
export const hostsOfSource = (db: Db, { siteId }: VisitSource): string[] => hostsOf(existingSite(db, siteId));
