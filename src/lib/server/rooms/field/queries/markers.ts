/** Releases of sites: rows and their files. */
import * as v from 'valibot';
import { nowIso, sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';

export interface DeletedMarker {
	siteId: number;
	at: string;
	path: string;
	kind: MarkerInput['kind'];
	words: string;
	name: string | null;
	text: string | null;
}

export const MARKER_KINDS = ['release', 'plugin', 'host', 'content', 'other'] as const;

const MOST_FILE = 1_000_000;

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
	),
	/** The settings as they were then, as a file of text. */
	file: v.optional(
		v.nullable(
			v.object({
				name: v.pipe(v.string('The file has a name.'), v.maxLength(200, 'At most 200 characters.')),
				text: v.pipe(v.string('The file is text.'), v.maxLength(MOST_FILE, 'The settings file is larger than 1 MB.'))
			})
		),
		null
	)
});

export type MarkerInput = v.InferOutput<typeof MarkerInput>;

export interface SiteMarker extends Omit<MarkerInput, 'file'> {
	id: number;
	/** Of its settings; null without. */
	fileName: string | null;
	siteId: number;
}

interface Row {
	id: number;
	site_id: number;
	at: string;
	path: string;
	kind: MarkerInput['kind'];
	words: string;
	file_name: string | null;
}

const asMarker = ({ id, site_id, at, path, kind, words, file_name }: Row): SiteMarker => ({
	id,
	siteId: site_id,
	day: at.slice(0, 10),
	path,
	kind,
	words,
	fileName: file_name
});

/** Newest first. */
export function markersOfSite(db: Db, siteId: number): SiteMarker[] {
	return sql<Row>(
		db,
		'SELECT id, site_id, at, path, kind, words, file_name FROM marker WHERE site_id = ? ORDER BY at DESC, id DESC'
	)
		.all(siteId)
		.map(asMarker);
}

/** @throws NotPossible for a marker that is not there */
export function existingMarker(db: Db, id: number): SiteMarker {
	const row = sql<Row>(
		db,
		'SELECT id, site_id, at, path, kind, words, file_name FROM marker WHERE id = ? AND site_id IS NOT NULL'
	).get(id);
	if (!row) throw new NotPossible(404, `There is no marker ${id}.`);
	return asMarker(row);
}

/** The settings kept with a marker. @throws NotPossible where there are none */
export function fileOfMarker(db: Db, id: number): { name: string; text: string } {
	const found = sql<{ name: string | null; text: string | null }>(
		db,
		'SELECT file_name AS name, file AS text FROM marker WHERE id = ?'
	).get(existingMarker(db, id).id);
	if (!found?.name || found.text === null) throw new NotPossible(404, `No settings were kept with marker ${id}.`);
	return { name: found.name, text: found.text };
}

/** @returns its number */
export function insertMarker(db: Db, marker: DeletedMarker): number {
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO marker (site_id, at, path, kind, words, file_name, file)
			VALUES (@siteId, @at, @path, @kind, @words, @name, @text)`
	).run(marker);
	return Number(lastInsertRowid);
}

/** Delete it. @returns all of it, for putting it back */
export const takeMarker = (db: Db, id: number): DeletedMarker =>
	sql<DeletedMarker>(
		db,
		`DELETE FROM marker WHERE id = ?
			RETURNING site_id AS siteId, at, path, kind, words, file_name AS name, file AS text`
	).get(id)!;
