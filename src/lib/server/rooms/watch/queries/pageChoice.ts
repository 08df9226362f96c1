/** Pages of a client that a watch or a standing may take. */
import * as v from 'valibot';
import { sql, type Db } from '../../../base/db/connection';
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

const MOST_FOUND = 24;

export const FROM = `FROM page JOIN site ON site.id = site_id WHERE client_id = @clientId AND role <> 'bench'
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

/** Pages by their numbers, in that order; those that are gone are left out. */
export function pagesNamed(db: Db, ids: readonly number[]): FoundPage[] {
	const find = sql<Row>(db, `SELECT ${COLUMNS} FROM page JOIN site ON site.id = site_id WHERE page.id = ?`);
	return ids.flatMap((id) => find.get(id) ?? []).map(asFound);
}

export function chosenOwn(db: Db, clientId: number): FoundPage[] {
	return sql<Row>(db, `SELECT ${COLUMNS} ${FROM} AND role = 'own' AND is_chosen ORDER BY visits DESC, page.id`)
		.all({ clientId, kind: 'watch' })
		.map(asFound);
}

export const typesOfPages = (db: Db, clientId: number, kind: WatchKind): string[] =>
	sql<{ type: string }>(db, `SELECT DISTINCT type ${FROM} AND type IS NOT NULL ORDER BY type`)
		.all({ clientId, kind })
		.map(({ type }) => type);
