/** One search over everything that has a name or an address. */
import { formatMoment } from '$core/wording/format';
import { sql, type Db } from '../base/db/connection';

export type HitKind = 'client' | 'site' | 'page' | 'trial' | 'load' | 'report';

export interface Hit {
	kind: HitKind;
	/** Where it is in the app. */
	href: string;
	text: string;
	/** Whose it is, or when it was. */
	note: string;
}

/** Of each kind, so that no kind hides the others. */
const MOST_OF_A_KIND = 6;

/** Every word must be found; letters are compared without case, as SQLite's `lower` knows it (ASCII). */
const words = (column: string) =>
	`NOT EXISTS (SELECT 1 FROM json_each(@words) WHERE instr(lower(${column}), value) = 0)`;

interface Row {
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

const HREFS: Record<HitKind, (row: Row) => string> = {
	client: ({ id }) => `/clients/${id}`,
	site: ({ id, owner }) => `/clients/${owner}/sites/${id}`,
	page: ({ text, owner }) => `/pages?site=${owner}&q=${encodeURIComponent(new URL(text).pathname)}`,
	trial: ({ id }) => `/trials/${id}`,
	report: ({ id }) => `/reports/${id}`,
	load: ({ id }) => `/loads/${id}`
};

/** @returns empty for less than two letters */
export function search(db: Db, query: string): Hit[] {
	const asked = query.trim().toLowerCase().slice(0, 200).split(/\s+/).filter(Boolean);
	if (asked.join('').length < 2) return [];
	return (Object.keys(QUERIES) as HitKind[]).flatMap((kind) =>
		sql<Row>(db, `${QUERIES[kind]} LIMIT ${MOST_OF_A_KIND}`)
			.all({ words: JSON.stringify(asked) })
			.map((row) => ({
				kind,
				href: HREFS[kind](row),
				text: row.text,
				note: kind === 'load' ? formatMoment(row.note) : row.note
			}))
	);
}
