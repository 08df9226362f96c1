/** Queries over all rooms. */
import { sql, type Db } from '../base/db/connection';

export type HitKind = 'client' | 'site' | 'page' | 'trial' | 'load' | 'report';

/** Of each kind, so that no kind hides the others. */
const MOST_OF_A_KIND = 6;

/** Every word must be found; letters are compared without case, as SQLite's `lower` knows it (ASCII). */
const words = (column: string) =>
	`NOT EXISTS (SELECT 1 FROM json_each(@words) WHERE instr(lower(${column}), value) = 0)`;

export interface HitRow {
	id: number;
	text: string;
	note: string;
	/** The client of a site, the site of a page. */
	owner?: number;
}

const QUERIES: Record<HitKind, string> = {
	client: `SELECT id, name AS text, note FROM client WHERE ${words('name')} ORDER BY name`,
	site: `SELECT site.id, client_id AS owner, site.name AS text, host || ', ' || client.name AS note
		FROM site JOIN client ON client.id = client_id
		WHERE ${words("site.name || ' ' || host")} ORDER BY site.name`,
	page: `SELECT page.id, site_id AS owner, url AS text, coalesce(type, '') AS note FROM page
		WHERE ${words("url || ' ' || coalesce(type, '')")} ORDER BY url`,
	trial: `SELECT trial.id, question AS text, coalesce(client.name, '') AS note
		FROM trial LEFT JOIN client ON client.id = client_id
		WHERE ${words(`question || ' ' || coalesce(client.name, '') || ' ' ||
			(SELECT group_concat(name || ' ' || url, ' ') FROM arm WHERE trial_id = trial.id)`)}
		ORDER BY trial.id DESC`,
	report: `SELECT report.id, title AS text, coalesce(client.name, '') AS note
		FROM report LEFT JOIN client ON client.id = client_id
		WHERE ${words("title || ' ' || coalesce(client.name, '')")} ORDER BY report.id DESC`,
	load: `SELECT id, url AS text, started_at AS note FROM load
		WHERE trial_id IS NULL AND ${words('url')} ORDER BY id DESC`
};

export const HIT_KINDS = Object.keys(QUERIES) as HitKind[];

/** @param words each must be found */
export const findHits = (db: Db, kind: HitKind, words: readonly string[]): HitRow[] =>
	sql<HitRow>(db, `${QUERIES[kind]} LIMIT ${MOST_OF_A_KIND}`).all({ words: JSON.stringify(words) });
