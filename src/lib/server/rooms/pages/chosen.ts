/** Chosen pages of a client's own sites: what reports and worksheets begin with. */
import type { Db } from '../../base/db/connection';
import { listPages } from './queries/pages';
import { sitesOf } from '../clients/view';

const MOST_PAGES = 50;

/** Ids, the most visited of each site first. */
export function chosenPagesOf(db: Db, clientId: number): number[] {
	return sitesOf(db, clientId)
		.filter(({ role }) => role === 'own')
		.flatMap(({ id }) => listPages(db, { siteId: id, which: 'chosen' }, MOST_PAGES).map((page) => page.id))
		.slice(0, MOST_PAGES);
}

/** The same with their addresses, for choosing among them. */
export function chosenPageNames(db: Db, clientId: number): { id: number; url: string }[] {
	const ids = new Set(chosenPagesOf(db, clientId));
	return sitesOf(db, clientId)
		.filter(({ role }) => role === 'own')
		.flatMap(({ id }) => listPages(db, { siteId: id, which: 'chosen' }, MOST_PAGES))
		.filter(({ id }) => ids.has(id))
		.map(({ id, url }) => ({ id, url }));
}
