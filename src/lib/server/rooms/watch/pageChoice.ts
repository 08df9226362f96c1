/** Which pages a watch or a standing can have: searched, not listed whole, since a site has thousands. */
import { pairPages } from '$core/pages/pairs';
import type { Db } from '../../base/db/connection';
import type { WatchKind } from './queries/watches';
import { findPages, type PageChoice, type FoundPage, pagesNamed, chosenOwn, typesOfPages } from './queries/pageChoice';
import { sitesOf, visitorStates } from '../clients/view';
import { pagesToChoose } from '../pages/view';

/** What a form offers before anybody searches. */
export interface PageOffer extends PageChoice {
	types: string[];
	sites: { id: number; name: string; states: { id: number; name: string }[] }[];
	/** Of a page type the client's own page and those of competitors. */
	pairs: { type: string; pages: FoundPage[] }[];
	/** The pages that the client's work looks at: a watch begins with them. */
	usual: FoundPage[];
}

export function pageOffer(db: Db, clientId: number, kind: WatchKind): PageOffer {
	const types = typesOfPages(db, clientId, kind);
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
