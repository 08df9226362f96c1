/** Pages of sites, as lists and as what a choice is made from. */
import { QUIET_VISITS } from '$core/pages/coverage';
import type { PageSource, SitePage } from '$core/pages/page';
import { sql, type Db } from '../db/connection';
import { NotPossible } from '../http/refusal';

export interface PageRow {
	id: number;
	siteId: number;
	url: string;
	type: string | null;
	visits: number | null;
	conversions: number | null;
	revenue: number | null;
	/** Of the site's visits, 0 to 1. */
	share: number | null;
	lastmod: string | null;
	source: PageSource;
	isChosen: boolean;
}

export interface PageFilter {
	siteId: number;
	/** Part of the address. */
	words?: string;
	/** Empty for all, `-` for pages without one. */
	type?: string;
	which?: '' | 'chosen' | 'others' | 'quiet';
}

const FILTER = `FROM page WHERE site_id = @siteId
	AND (@words = '' OR instr(lower(url), @words))
	AND (@type = '' OR (@type = '-' AND type IS NULL) OR type = @type)
	AND (@which = '' OR (@which = 'chosen' AND is_chosen) OR (@which = 'others' AND NOT is_chosen)
		OR (@which = 'quiet' AND visits < @quiet))`;

const valuesOf = ({ siteId, words = '', type = '', which = '' }: PageFilter) => ({
	siteId,
	words: words.trim().toLowerCase(),
	type,
	which,
	quiet: QUIET_VISITS
});

type Stored = Omit<PageRow, 'isChosen'> & { isChosen: number };
const COLUMNS = `id, site_id AS siteId, url, type, visits, conversions, revenue, traffic_share AS share, lastmod, source,
	is_chosen AS isChosen`;
const asRow = (row: Stored): PageRow => ({ ...row, isChosen: row.isChosen === 1 });

/** Chosen first, then most visits. */
export function listPages(db: Db, filter: PageFilter, limit: number, offset = 0): PageRow[] {
	return sql<Stored>(
		db,
		`SELECT ${COLUMNS} ${FILTER} ORDER BY is_chosen DESC, visits DESC, id LIMIT @limit OFFSET @offset`
	)
		.all({ ...valuesOf(filter), limit, offset })
		.map(asRow);
}

/** @throws NotPossible for a page that is not there */
export function existingPage(db: Db, id: number): PageRow {
	const row = sql<Stored>(db, `SELECT ${COLUMNS} FROM page WHERE id = ?`).get(id);
	if (!row) throw new NotPossible(404, `There is no page ${id}.`);
	return asRow(row);
}

export function countPages(db: Db, filter: PageFilter): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n ${FILTER}`).get(valuesOf(filter))!.n;
}

/** All pages of a site, as little of each as choosing needs. */
export function pagesToChoose(db: Db, siteId: number): SitePage[] {
	const rows = sql<[number, string, string | null, number | null, number]>(
		db,
		'SELECT id, url, type, visits, is_chosen FROM page WHERE site_id = ?'
	)
		.raw()
		.all(siteId);
	return rows.map(([id, url, type, visits, chosen]) => ({ id, url, type, visits, chosen: chosen === 1 }));
}

export interface TypeCount {
	type: string | null;
	pages: number;
	chosen: number;
	visits: number;
}

/** Page types of a site, most visits first. */
export function typesOfSite(db: Db, siteId: number): TypeCount[] {
	return sql<TypeCount>(
		db,
		`SELECT type, count(*) AS pages, sum(is_chosen) AS chosen, coalesce(sum(visits), 0) AS visits
			FROM page WHERE site_id = ? GROUP BY type ORDER BY visits DESC, pages DESC`
	).all(siteId);
}

/** Pages with the pieces of their markup, where it was fetched. */
export function skeletonsOf(db: Db, siteId: number): Map<number, Set<string>> {
	const rows = sql<{ id: number; pieces: string }>(
		db,
		'SELECT page_id AS id, pieces FROM page_skeleton JOIN page ON page.id = page_id WHERE site_id = ?'
	).all(siteId);
	return new Map(rows.map(({ id, pieces }) => [id, new Set(JSON.parse(pieces) as string[])]));
}

export function saveSkeleton(db: Db, pageId: number, pieces: ReadonlySet<string>, at: string): void {
	sql(
		db,
		`INSERT INTO page_skeleton (page_id, fetched_at, pieces) VALUES (?, ?, ?)
			ON CONFLICT (page_id) DO UPDATE SET fetched_at = excluded.fetched_at, pieces = excluded.pieces`
	).run(pageId, at, JSON.stringify([...pieces]));
}
