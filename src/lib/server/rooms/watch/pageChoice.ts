/** Which pages a watch or a standing can have: searched, not listed whole, since a site has thousands. */
import * as v from 'valibot';
import { pairPages } from '$core/pages/pairs';
import { sitesOf } from '../clients/sites';
import { visitorStates } from '../clients/visitorStates';
import { sql, type Db } from '../../base/db/connection';
import { pagesToChoose } from '../pages/pages';
import type { WatchKind } from './watches';

export const PageSearch = v.object({
	words: v.optional(v.pipe(v.string(), v.trim(), v.toLowerCase()), ''),
	type: v.optional(v.string(), ''),
	site: v.optional(v.number(), 0)
});
export type PageSearch = v.InferOutput<typeof PageSearch>;

export interface FoundPage {
	id: number;
	url: string;
	type: string | null;
	isChosen: boolean;
}

export interface PageChoice {
	/** The best matches: own ones first, then chosen ones, then the busiest. */
	pages: FoundPage[];
	/** How many match. */
	total: number;
}

/** What a form offers before anybody searches. */
export interface PageOffer extends PageChoice {
	types: string[];
	sites: { id: number; name: string; states: { id: number; name: string }[] }[];
	/** Of a page type the client's own page and those of competitors. */
	pairs: { type: string; pages: FoundPage[] }[];
	/** The pages that the client's work looks at: a watch begins with them. */
	usual: FoundPage[];
}

const MOST_FOUND = 24;
const FROM = `FROM page JOIN site ON site.id = site_id WHERE client_id = @clientId AND role <> 'bench'
	AND (@kind = 'standing' OR role = 'own')`;
const MATCHING = `${FROM} AND (@words = '' OR instr(lower(url), @words)) AND (@type = '' OR type = @type)
	AND (@site = 0 OR site_id = @site)`;
const COLUMNS = 'page.id, url, type, is_chosen AS isChosen';

type Row = Omit<FoundPage, 'isChosen'> & { isChosen: number };
const asFound = (row: Row): FoundPage => ({ ...row, isChosen: row.isChosen === 1 });

export function findPages(db: Db, clientId: number, kind: WatchKind, search: PageSearch): PageChoice {
	const values = { clientId, kind, ...search };
	const rows = sql<Row>(
		db,
		`SELECT ${COLUMNS} ${MATCHING} ORDER BY role <> 'own', is_chosen DESC, visits DESC, page.id LIMIT ${MOST_FOUND}`
	).all(values);
	return { pages: rows.map(asFound), total: sql<{ n: number }>(db, `SELECT count(*) AS n ${MATCHING}`).get(values)!.n };
}

export function pageOffer(db: Db, clientId: number, kind: WatchKind): PageOffer {
	const types = sql<{ type: string }>(db, `SELECT DISTINCT type ${FROM} AND type IS NOT NULL ORDER BY type`)
		.all({ clientId, kind })
		.map(({ type }) => type);
	const sites = sitesOf(db, clientId).filter(({ role }) => role === 'own' || (kind === 'standing' && role !== 'bench'));
	const states = visitorStates(db, clientId);
	return {
		...findPages(db, clientId, kind, { words: '', type: '', site: 0 }),
		types,
		sites: sites.map(({ id, name }) => ({
			id,
			name,
			states: states.filter(({ siteId }) => siteId === id).map((own) => ({ id: own.id, name: own.state.name }))
		})),
		pairs: kind === 'standing' ? pairsWith(db, clientId) : [],
		usual: kind === 'watch' ? chosenOwn(db, clientId) : []
	};
}

/** Pages by their numbers, in that order; those that are gone are left out. */
export function pagesNamed(db: Db, ids: readonly number[]): FoundPage[] {
	const find = sql<Row>(db, `SELECT ${COLUMNS} FROM page JOIN site ON site.id = site_id WHERE page.id = ?`);
	return ids.flatMap((id) => find.get(id) ?? []).map(asFound);
}

function chosenOwn(db: Db, clientId: number): FoundPage[] {
	return sql<Row>(db, `SELECT ${COLUMNS} ${FROM} AND role = 'own' AND is_chosen ORDER BY visits DESC, page.id`)
		.all({ clientId, kind: 'watch' })
		.map(asFound);
}

function pairsWith(db: Db, clientId: number): PageOffer['pairs'] {
	const sites = sitesOf(db, clientId);
	const own = sites.filter(({ role }) => role === 'own').flatMap(({ id }) => pagesToChoose(db, id));
	const others = sites
		.filter(({ role }) => role === 'competitor')
		.map(({ id, name }) => ({ name, pages: pagesToChoose(db, id) }));
	return pairPages(own, others).flatMap(({ type, ownId, others: theirs }) => {
		const ids = [ownId, ...theirs.flatMap(({ id }) => id ?? [])];
		if (ids.length < 2) return [];
		return [{ type, pages: pagesNamed(db, ids) }];
	});
}
