/** Pages of sites, as lists and as what a choice is made from. */
import { QUIET_VISITS } from '$core/pages/coverage';
import type { PageSource, SitePage } from '$core/pages/page';
import { sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';

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

export function findPage(db: Db, id: number): PageRow | null {
	const row = sql<Stored>(db, `SELECT ${COLUMNS} FROM page WHERE id = ?`).get(id);
	return row ? asRow(row) : null;
}

/** The client's page with this address; null where its sites have none. */
export function pageWithUrl(db: Db, clientId: number | null, url: string): number | null {
	const row = sql<{ id: number }>(
		db,
		'SELECT page.id FROM page JOIN site ON site.id = site_id WHERE client_id = ? AND url = ?'
	).get(clientId, url);
	return row?.id ?? null;
}

/** A page of any client's sites with this address; null where none has it. */
export function anyPageWithUrl(db: Db, url: string): number | null {
	const row = sql<{ id: number }>(
		db,
		'SELECT page.id FROM site CROSS JOIN page ON site_id = site.id AND url = ? ORDER BY site.id LIMIT 1'
	).get(url);
	return row?.id ?? null;
}

/** @throws NotPossible for a page that is not there */
export function existingPage(db: Db, id: number): PageRow {
	const page = findPage(db, id);
	if (!page) throw new NotPossible(404, `There is no page ${id}.`);
	return page;
}

export function countPages(db: Db, filter: PageFilter): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n ${FILTER}`).get(valuesOf(filter))!.n;
}

const CHOICE = 'SELECT id, url, type, visits, is_chosen FROM page WHERE site_id = @siteId';

type ChoiceRow = [id: number, url: string, type: string | null, visits: number | null, chosen: number];

const asChoice = ([id, url, type, visits, chosen]: ChoiceRow): SitePage => ({
	id,
	url,
	type,
	visits,
	chosen: chosen === 1
});

/** All pages of a site, as little of each as choosing needs. */
export function pagesToChoose(db: Db, siteId: number): SitePage[] {
	return sql<ChoiceRow>(db, CHOICE).raw().all({ siteId }).map(asChoice);
}

/** The pages that decide a choice: those that are chosen, the busiest of each type, and the busiest of all. */
export function candidatesOf(db: Db, siteId: number, types: readonly TypeCount[], most: number): SitePage[] {
	const busiest = `${CHOICE} AND NOT is_chosen ORDER BY visits DESC, id LIMIT @most`;
	const rows = [
		...sql<ChoiceRow>(db, `${CHOICE} AND is_chosen`).raw().all({ siteId }),
		...sql<ChoiceRow>(db, busiest).raw().all({ siteId, most }),
		...types.flatMap(({ type }) =>
			type === null
				? []
				: sql<ChoiceRow>(db, `${CHOICE} AND type = @type ORDER BY visits DESC, id LIMIT 1`).raw().all({ siteId, type })
		)
	];
	return [...new Map(rows.map((row) => [row[0], asChoice(row)])).values()];
}

export interface TypeCount {
	type: string | null;
	pages: number;
	chosen: number;
	visits: number;
	/** Pages whose visits are known. */
	counted: number;
}

/** Page types of a site, most visits first. */
export function typesOfSite(db: Db, siteId: number): TypeCount[] {
	return sql<TypeCount>(
		db,
		`SELECT type, count(*) AS pages, sum(is_chosen) AS chosen, coalesce(sum(visits), 0) AS visits,
			count(visits) AS counted
			FROM page WHERE site_id = ? GROUP BY type ORDER BY visits DESC, pages DESC`
	).all(siteId);
}

/** Sites to which some pages belong. */
export function sitesOfPages(db: Db, ids: readonly number[]): number[] {
	return sql<{ id: number }>(db, 'SELECT DISTINCT site_id AS id FROM page WHERE id IN (SELECT value FROM json_each(?))')
		.all(JSON.stringify(ids))
		.map(({ id }) => id);
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

/** @throws NotPossible for a page that is not there */
export function checkPage(db: Db, pageId: number | null, path: string): void {
	if (pageId !== null && sql(db, 'SELECT 1 FROM page WHERE id = ?').get(pageId) === undefined)
		throw new NotPossible(422, `There is no page ${pageId}.`, path);
}

export interface KnownAddress {
	url: string;
	/** What a page is called, or whose it is. */
	note: string;
}

/** Addresses that a client's work knows: pages of its sites first, then what its trials named, newest first. */
export function knownAddresses(db: Db, clientId: number | null, most: number): KnownAddress[] {
	const ofClient = clientId === null ? '' : 'WHERE client_id = @clientId';
	return sql<KnownAddress>(
		db,
		`SELECT url, note FROM (
			SELECT url, coalesce(type, site.name) AS note, 0 AS place, -page.id AS age
				FROM site JOIN page ON page.site_id = site.id ${ofClient}
			UNION ALL SELECT url, '', 1, -trial_id FROM trial JOIN arm ON arm.trial_id = trial.id ${ofClient}
		) GROUP BY url ORDER BY min(place), min(age) LIMIT @most`
	).all({ ...(clientId === null ? {} : { clientId }), most });
}
