/** Changes of the pages of a site. */
import { originOf } from '$core/clients/site';
import { sum } from 'd3-array';
import type { TrafficTable } from '$core/pages/traffic';
import { isOfSite, normaliseAddress } from '$core/pages/address';
import type { Db } from '../../base/db/connection';
import { hostsOf } from '../clients/sites';
import { findProposals, saveProposals } from './proposals';
import { sitesOfPages } from './queries/pages';
import {
	savePages,
	type Saved,
	setType,
	choosePages,
	clearTraffic,
	setTraffic,
	setShares,
	deleteRows
} from './queries/changes';
import { existingSite, setRestVisits, type Site } from '../clients/view';
import { NotPossible } from '../../base/refusal';

/** A new traffic table takes the place of the last one: a page that it does not name had no visits. */
export function saveTraffic(db: Db, siteId: number, { pages, restVisits }: TrafficTable): Saved {
	return db.transaction(() => {
		const saved = savePages(db, siteId, pages, 'traffic');
		clearTraffic(db, siteId);
		let rest = restVisits;
		for (const page of pages) if (!setTraffic(db, siteId, page)) rest += page.visits;
		setRestVisits(db, siteId, rest);
		const total = rest + sum(pages, ({ visits }) => visits);
		setShares(db, siteId, total);
		return saved;
	})();
}

export interface Pasted extends Saved {
	/** Lines that are no addresses, and those of other sites. */
	bad: string[];
	foreign: string[];
}

/** Addresses, one a line; mere paths are the site's own. Types are proposed anew. */
export function pastePages(db: Db, siteId: number, text: string): Pasted {
	const site = existingSite(db, siteId);
	const lines = text.split(/[\s,;]+/).filter(Boolean);
	const read = lines.map((line) => ({ line, url: addressOf(line, site) }));
	const bad = read.filter(({ url }) => url === null).map(({ line }) => line);
	const urls = read.flatMap(({ url }) => url ?? []);
	const own = urls.filter((url) => isOfSite(url, hostsOf(site)));
	const foreign = urls.filter((url) => !isOfSite(url, hostsOf(site)));
	const saved = savePages(
		db,
		siteId,
		own.map((url) => ({ url })),
		'pasted'
	);
	saveProposals(db, siteId);
	return { ...saved, bad, foreign };
}

function addressOf(line: string, site: Site): string | null {
	const isPath = line.startsWith('/');
	if (!isPath && !/^(https?:\/\/)?[\w-]+(\.[\w-]+)+/i.test(line)) return null;
	const read = normaliseAddress(
		isPath || /^https?:/i.test(line) ? line : `${site.scheme}://${line}`,
		`${originOf(site)}/`
	);
	return 'url' in read ? read.url : null;
}

export interface PageChange {
	/** Null takes it away. */
	type?: string | null;
	/** Whether the client's work looks at them. */
	isChosen?: boolean;
}

/** Change pages together; types are proposed anew where they changed. @returns how many pages there were */
export function changePages(db: Db, ids: readonly number[], { type, isChosen }: PageChange): number {
	return db.transaction(() => {
		let changed = 0;
		if (type !== undefined) {
			changed = setType(db, ids, typeName(type));
			for (const siteId of sitesOfPages(db, ids)) saveProposals(db, siteId);
		}
		if (isChosen !== undefined) changed = choosePages(db, ids, isChosen);
		return changed;
	})();
}

const MOST_LETTERS = 60;

/** @throws NotPossible for one that is too long @returns null for none */
function typeName(type: string | null): string | null {
	const name = type?.trim().toLowerCase() ?? '';
	if (name.length > MOST_LETTERS)
		throw new NotPossible(422, `A page type has at most ${MOST_LETTERS} characters.`, 'type');
	return name || null;
}

/** Take proposed types: all of the site, or one under a name of the analyst's own. */
export function acceptProposals(db: Db, siteId: number, only: string | null, name: string | null): void {
	db.transaction(() => {
		for (const { type, pages } of findProposals(db, siteId))
			if (only === null || only === type) setType(db, pages, typeName(name ?? type));
		saveProposals(db, siteId);
	})();
}

/** Trials that loaded them keep their addresses. Types are proposed anew. */
export function deletePages(db: Db, ids: readonly number[]): number {
	return db.transaction(() => {
		const sites = sitesOfPages(db, ids);
		const changes = deleteRows(db, ids);
		for (const siteId of sites) saveProposals(db, siteId);
		return changes;
	})();
}
