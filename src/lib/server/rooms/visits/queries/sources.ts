/** Sites that have a visits’ script. */
import * as v from 'valibot';
import { VisitSettings } from '$core/field/visitSettings';
import { sql, type Db } from '../../../base/db/connection';

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

/** @param source its key stands only where there was none */
export function upsertSource(db: Db, source: { siteId: number; key: string; settings: string; now: string }): void {
	sql(
		db,
		`INSERT INTO visit_source (site_id, key, settings, created_at) VALUES (@siteId, @key, @settings, @now)
			ON CONFLICT (site_id) DO UPDATE SET settings = excluded.settings`
	).run(source);
}
