/** Pages of competitors beside the client's own, by page type. */
import { pairPages, type PagePair } from '$core/pages/pairs';
import type { Db } from '../../base/db/connection';
import { pagesToChoose } from './queries/pages';
import type { Site } from '../clients/view';

/** A line for each page type of the client's own sites; empty without a competitor. */
export function pairsOf(db: Db, sites: readonly Site[]): PagePair[] {
	const own = sites.filter(({ role }) => role === 'own');
	const others = sites.filter(({ role }) => role === 'competitor');
	if (!own.length || !others.length) return [];
	return pairPages(
		own.flatMap(({ id }) => pagesToChoose(db, id)),
		others.map(({ id, name }) => ({ name, pages: pagesToChoose(db, id) }))
	);
}
