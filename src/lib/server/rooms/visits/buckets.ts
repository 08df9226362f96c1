/** Where a page view is counted: at its page, or at the pattern of its path: a site of many pages stays small. */
import { pageKey } from '$core/pages/address';
import { type SiteBuckets, pathOfKey, folderOf } from './queries/buckets';

/** Page views of no page and no pattern that the lists know. */
export const ELSEWHERE = '/*';

/** "/timetable", "/news/*" or "/*". */
export function bucketOfPath(path: string, { pages, folders }: SiteBuckets): string {
	const plain = path.length > 1 ? path.replace(/\/+$/, '') : path;
	if (pages.has(plain || '/')) return plain || '/';
	const folder = folderOf(path);
	return folder && folders.has(folder) ? `${folder}*` : ELSEWHERE;
}

/** Where the page views of a page of the list are counted. */
export const bucketOfPage = (url: string): string => pathOfKey(pageKey(url));
