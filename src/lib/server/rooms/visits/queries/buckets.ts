/** Paths under which page views are counted. */
import { sql, type Db } from '../../../base/db/connection';

/** Pages that are counted one by one, those with the most traffic. */
const MOST_PAGES = 1000;

/** Paths of a site's pages, and the first parts of paths that several of them share. */
export interface SiteBuckets {
	pages: ReadonlySet<string>;
	folders: ReadonlySet<string>;
}

export const pathOfKey = (key: string) => key.slice(key.indexOf('/')).replace(/\?.*$/, '');

export const folderOf = (path: string) => /^\/[^/]+\//.exec(path)?.[0] ?? null;

export function bucketsOfSite(db: Db, siteId: number): SiteBuckets {
	const paths = sql<{ key: string }>(
		db,
		'SELECT key FROM page WHERE site_id = ? ORDER BY is_chosen DESC, visits DESC, id LIMIT ?'
	)
		.all(siteId, MOST_PAGES)
		.map(({ key }) => pathOfKey(key));
	return { pages: new Set(paths), folders: new Set(paths.flatMap((path) => folderOf(path) ?? [])) };
}
