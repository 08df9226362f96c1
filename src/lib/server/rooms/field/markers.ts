/** Dated notes of changes on a site: what the history of a page is read beside. */
import type { Db } from '../../base/db/connection';
import { putInBin } from '../../base/storage/bin';
import { type MarkerInput, existingMarker, insertMarker, takeMarker } from './queries/markers';
import { existingSite } from '../clients/view';
import type { DeletedMarker } from './queries/markers';

/** A marker without a file of settings need not say so. */
export type NewMarker = Omit<MarkerInput, 'file'> & Partial<Pick<MarkerInput, 'file'>>;

/** @throws NotPossible for a site that is not there @returns its number */
export function addMarker(db: Db, siteId: number, { day, path, kind, words, file = null }: NewMarker): number {
	existingSite(db, siteId);
	return insertMarker(db, { siteId, at: day, path, kind, words, name: file?.name ?? null, text: file?.text ?? null });
}

/** Into the bin. @throws NotPossible for a marker that is not there @returns its number in the bin */
export function deleteMarker(db: Db, id: number): number {
	return db
		.transaction(() => {
			const { siteId, words } = existingMarker(db, id);
			const body = takeMarker(db, id);
			return putInBin(db, { kind: 'marker', name: words, clientId: existingSite(db, siteId).clientId, body });
		})
		.immediate();
}

/** @throws NotPossible when its site is gone */
export function restoreMarker(db: Db, body: DeletedMarker): void {
	existingSite(db, body.siteId);
	insertMarker(db, body);
}

/** Whether a marker speaks of a page: "/" of the home page alone, other paths of all that begin so. */
export function concerns({ path }: Pick<MarkerInput, 'path'>, pagePath: string): boolean {
	if (path === '') return true;
	return path === '/' ? pagePath === '/' : pagePath === path || pagePath.startsWith(`${path.replace(/\/$/, '')}/`);
}
