/** Dated notes of changes on a site: what the history of a page is read beside. */
import * as v from 'valibot';
import { existingSite } from '../clients/sites';
import { nowIso, sql, type Db } from '../db/connection';
import { NotPossible } from '../http/refusal';

export const MARKER_KINDS = ['release', 'plugin', 'host', 'content', 'other'] as const;

export const MarkerInput = v.object({
	/** First day on which it was live. */
	day: v.pipe(
		v.string('Choose a day.'),
		v.regex(/^\d{4}-\d{2}-\d{2}$/, 'Write the day as 2026-11-27.'),
		v.check((day) => !Number.isNaN(Date.parse(day)), 'This day is in no calendar.'),
		v.check((day) => day <= nowIso().slice(0, 10), 'This day has not come yet.')
	),
	/** Pages whose path begins so; empty for the whole site. */
	path: v.optional(v.pipe(v.string(), v.trim(), v.regex(/^(\/\S{0,200})?$/, 'A path begins with /.')), ''),
	kind: v.optional(v.picklist(MARKER_KINDS, 'This kind is not known.'), 'release'),
	words: v.pipe(
		v.string(),
		v.trim(),
		v.minLength(1, 'Say what was changed.'),
		v.maxLength(200, 'At most 200 characters.')
	)
});
export type MarkerInput = v.InferOutput<typeof MarkerInput>;

export interface SiteMarker extends MarkerInput {
	id: number;
	siteId: number;
}

interface Row {
	id: number;
	site_id: number;
	at: string;
	path: string;
	kind: MarkerInput['kind'];
	words: string;
}

const asMarker = ({ id, site_id, at, path, kind, words }: Row): SiteMarker => ({
	id,
	siteId: site_id,
	day: at.slice(0, 10),
	path,
	kind,
	words
});

/** @throws NotPossible for a site that is not there @returns its number */
export function addMarker(db: Db, siteId: number, { day, path, kind, words }: MarkerInput): number {
	existingSite(db, siteId);
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO marker (site_id, at, path, kind, words) VALUES (@siteId, @day, @path, @kind, @words)'
	).run({ siteId, day, path, kind, words });
	return Number(lastInsertRowid);
}

/** Newest first. */
export function markersOfSite(db: Db, siteId: number): SiteMarker[] {
	return sql<Row>(
		db,
		'SELECT id, site_id, at, path, kind, words FROM marker WHERE site_id = ? ORDER BY at DESC, id DESC'
	)
		.all(siteId)
		.map(asMarker);
}

/** @throws NotPossible for a marker that is not there */
export function existingMarker(db: Db, id: number): SiteMarker {
	const row = sql<Row>(
		db,
		'SELECT id, site_id, at, path, kind, words FROM marker WHERE id = ? AND site_id IS NOT NULL'
	).get(id);
	if (!row) throw new NotPossible(404, `There is no marker ${id}.`);
	return asMarker(row);
}

/** @throws NotPossible for a marker that is not there */
export function deleteMarker(db: Db, id: number): void {
	sql(db, 'DELETE FROM marker WHERE id = ?').run(existingMarker(db, id).id);
}

/** Whether a marker speaks of a page: "/" of the home page alone, other paths of all that begin so. */
export function concerns({ path }: Pick<MarkerInput, 'path'>, pagePath: string): boolean {
	if (path === '') return true;
	return path === '/' ? pagePath === '/' : pagePath === path || pagePath.startsWith(`${path.replace(/\/$/, '')}/`);
}
