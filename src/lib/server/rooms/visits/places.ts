/** Where a page view is counted: at its page, or at the pattern of its path: a site of many pages stays small. */
import { sql, type Db } from '../../base/db/connection';
import { pageKey } from '$core/pages/address';

/** Page views of no page and no pattern that the lists know. */
export const ELSEWHERE = '/*';
/** Pages that are counted one by one, those with the most traffic. */
const MOST_PAGES = 1000;

/** Paths of a site's pages, and the first parts of paths that several of them share. */
export interface SitePlaces {
	pages: ReadonlySet<string>;
	folders: ReadonlySet<string>;
}

const pathOfKey = (key: string) => key.slice(key.indexOf('/')).replace(/\?.*$/, '');
const folderOf = (path: string) => /^\/[^/]+\//.exec(path)?.[0] ?? null;

export function placesOfSite(db: Db, siteId: number): SitePlaces {
	const paths = sql<{ key: string }>(
		db,
		'SELECT key FROM page WHERE site_id = ? ORDER BY is_chosen DESC, visits DESC, id LIMIT ?'
	)
		.all(siteId, MOST_PAGES)
		.map(({ key }) => pathOfKey(key));
	return { pages: new Set(paths), folders: new Set(paths.flatMap((path) => folderOf(path) ?? [])) };
}

/** "/timetable", "/news/*" or "/*". */
export function placeOfPath(path: string, { pages, folders }: SitePlaces): string {
	const plain = path.length > 1 ? path.replace(/\/+$/, '') : path;
	if (pages.has(plain || '/')) return plain || '/';
	const folder = folderOf(path);
	return folder && folders.has(folder) ? `${folder}*` : ELSEWHERE;
}

/** Where the page views of a page of the list are counted. */
export const placeOfPage = (url: string): string => pathOfKey(pageKey(url));
