/** Rows of a site’s pages, written and deleted. */
import { pageKey } from '$core/pages/address';
import type { PageSource } from '$core/pages/page';
import { sql, type Db } from '../../../base/db/connection';
import { MOST_PAGES_KEPT, type TrafficTable } from '$core/pages/traffic';

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
			const existing = find.get(siteId, key);
			if (existing) {
				saved.known++;
				update.run({ id: existing.id, lastmod, type });
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

const listOf = (ids: readonly number[]) => JSON.stringify(ids);

/** @returns how many there were */
export const setType = (db: Db, ids: readonly number[], type: string | null): number =>
	sql(db, 'UPDATE page SET type = ? WHERE id IN (SELECT value FROM json_each(?))').run(type, listOf(ids)).changes;

/** Add pages to those that the client's work looks at, or take them out. */
export function choosePages(db: Db, ids: readonly number[], isChosen: boolean): number {
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

export function clearTraffic(db: Db, siteId: number): void {
	sql(db, 'UPDATE page SET visits = 0, conversions = NULL, revenue = NULL WHERE site_id = ?').run(siteId);
}

/** @returns whether the site has the page */
export function setTraffic(db: Db, siteId: number, { url, ...traffic }: TrafficTable['pages'][number]): boolean {
	const { visits, conversions, revenue } = traffic;
	return (
		sql(
			db,
			`UPDATE page SET visits = @visits, conversions = @conversions, revenue = @revenue
				WHERE site_id = @siteId AND key = @key`
		).run({ siteId, key: pageKey(url), visits, conversions, revenue }).changes > 0
	);
}

/** @param total visits of the whole site */
export function setShares(db: Db, siteId: number, total: number): void {
	sql(db, 'UPDATE page SET traffic_share = CASE WHEN @total > 0 THEN visits / @total END WHERE site_id = @siteId').run({
		siteId,
		total
	});
}

/** @returns how many there were */
export const deleteRows = (db: Db, ids: readonly number[]): number =>
	sql(db, 'DELETE FROM page WHERE id IN (SELECT value FROM json_each(?))').run(listOf(ids)).changes;
