/** Changes of the pages of a site. */
import { originOf } from '$core/clients/site';
import { sum } from 'd3-array';
import { MOST_PAGES_KEPT, type TrafficTable } from '$core/pages/traffic';
import { isOfSite, normaliseAddress, pageKey } from '$core/pages/address';
import type { PageSource } from '$core/pages/page';
import { sql, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { existingSite, hostsOf, setRestVisits, type Site } from '../clients/sites';
import { findProposals, saveProposals } from './proposals';
import { sitesOfPages } from './queries';

export interface FoundPage {
	url: string;
	lastmod?: string | null;
	type?: string | null;
}

export interface Saved {
	added: number;
	/** Known already. */
	known: number;
	/** Left aside because a site keeps no more pages. */
	over: number;
}

/** Pages are added; what is known of one stays unless something newer is found. */
export function savePages(db: Db, siteId: number, pages: readonly FoundPage[], source: PageSource): Saved {
	return db.transaction(() => {
		let room = MOST_PAGES_KEPT - countOf(db, siteId);
		const saved: Saved = { added: 0, known: 0, over: 0 };
		const find = sql<{ id: number }>(db, 'SELECT id FROM page WHERE site_id = ? AND key = ?');
		const insert = sql(
			db,
			'INSERT INTO page (site_id, url, key, type, lastmod, source) VALUES (@siteId, @url, @key, @type, @lastmod, @source)'
		);
		const update = sql(
			db,
			'UPDATE page SET lastmod = coalesce(@lastmod, lastmod), type = coalesce(type, @type) WHERE id = @id'
		);
		for (const { url, lastmod = null, type = null } of pages) {
			const key = pageKey(url);
			const known = find.get(siteId, key);
			if (known) {
				saved.known++;
				update.run({ id: known.id, lastmod, type });
			} else if (room > 0) {
				room--;
				saved.added++;
				insert.run({ siteId, url, key, type, lastmod, source });
			} else saved.over++;
		}
		return saved;
	})();
}

const countOf = (db: Db, siteId: number) =>
	sql<{ n: number }>(db, 'SELECT count(*) AS n FROM page WHERE site_id = ?').get(siteId)!.n;

/** A new traffic table takes the place of the last one: a page that it does not name had no visits. */
export function saveTraffic(db: Db, siteId: number, { pages, restVisits }: TrafficTable): Saved {
	return db.transaction(() => {
		const saved = savePages(db, siteId, pages, 'traffic');
		sql(db, 'UPDATE page SET visits = 0, conversions = NULL, revenue = NULL WHERE site_id = ?').run(siteId);
		const update = sql(
			db,
			`UPDATE page SET visits = @visits, conversions = @conversions, revenue = @revenue
				WHERE site_id = @siteId AND key = @key`
		);
		let rest = restVisits;
		for (const { url, visits, conversions, revenue } of pages)
			if (update.run({ siteId, key: pageKey(url), visits, conversions, revenue }).changes === 0) rest += visits;
		setRestVisits(db, siteId, rest);
		const total = rest + sum(pages, ({ visits }) => visits);
		sql(
			db,
			'UPDATE page SET traffic_share = CASE WHEN @total > 0 THEN visits / @total END WHERE site_id = @siteId'
		).run({
			siteId,
			total
		});
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
	const known = read.flatMap(({ url }) => url ?? []);
	const own = known.filter((url) => isOfSite(url, hostsOf(site)));
	const foreign = known.filter((url) => !isOfSite(url, hostsOf(site)));
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

const listOf = (ids: readonly number[]) => JSON.stringify(ids);

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
			changed = setType(db, ids, type);
			for (const siteId of sitesOfPages(db, ids)) saveProposals(db, siteId);
		}
		if (isChosen !== undefined) changed = choosePages(db, ids, isChosen);
		return changed;
	})();
}

/** Take proposed types: all of the site, or one under a name of the analyst's own. */
export function acceptProposals(db: Db, siteId: number, only: string | null, name: string | null): void {
	db.transaction(() => {
		for (const { type, pages } of findProposals(db, siteId))
			if (only === null || only === type) setType(db, pages, name ?? type);
		saveProposals(db, siteId);
	})();
}

function setType(db: Db, ids: readonly number[], type: string | null): number {
	const name = type?.trim().toLowerCase() ?? '';
	if (name.length > 60) throw new NotPossible(422, 'A page type has at most 60 characters.', 'type');
	return sql(db, 'UPDATE page SET type = ? WHERE id IN (SELECT value FROM json_each(?))').run(name || null, listOf(ids))
		.changes;
}

/** Add pages to those that the client's work looks at, or take them out. */
function choosePages(db: Db, ids: readonly number[], isChosen: boolean): number {
	return sql(db, 'UPDATE page SET is_chosen = ? WHERE id IN (SELECT value FROM json_each(?))').run(
		Number(isChosen),
		listOf(ids)
	).changes;
}

/** Just these pages of a site are looked at. */
export function chooseOnly(db: Db, siteId: number, ids: readonly number[]): void {
	sql(db, 'UPDATE page SET is_chosen = id IN (SELECT value FROM json_each(@ids)) WHERE site_id = @siteId').run({
		siteId,
		ids: listOf(ids)
	});
}

/** Trials that loaded them keep their addresses. Types are proposed anew. */
export function deletePages(db: Db, ids: readonly number[]): number {
	return db.transaction(() => {
		const sites = sitesOfPages(db, ids);
		const { changes } = sql(db, 'DELETE FROM page WHERE id IN (SELECT value FROM json_each(?))').run(listOf(ids));
		for (const siteId of sites) saveProposals(db, siteId);
		return changes;
	})();
}
