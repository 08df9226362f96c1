/** Frozen versions as HTML: with pictures and fonts by address, or with all of them inside. */
import sansUrl from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?url';
import serifUrl from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2?url';
import sansData from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?inline';
import serifData from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2?inline';
import { reportPage } from '$lib/report/page';
import type { Db } from '$lib/server/db/connection';
import { frozenOf } from '$lib/server/reports/queries';
import { findReportPicture, mediaOf } from '$lib/server/reports/pictures';

/** A report has no scripts, and asks nobody but Zafra for its pictures and fonts. */
export const REPORT_POLICY =
	"default-src 'none'; img-src 'self' data:; font-src 'self' data:; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'";

/** @param base address under which the pictures are */
export function linkedPage(db: Db, versionId: number, base: string): string {
	return reportPage(frozenOf(db, versionId).view, {
		pictureOf: (key) => `${base}/${key}`,
		fonts: { sans: sansUrl, serif: serifUrl }
	});
}

/** One file that needs nothing else. */
export function wholePage(db: Db, versionId: number): string {
	const dataOf = (key: string) => {
		const bytes = findReportPicture(db, versionId, key);
		return bytes ? `data:${mediaOf(bytes)};base64,${bytes.toString('base64')}` : '';
	};
	return reportPage(frozenOf(db, versionId).view, {
		pictureOf: dataOf,
		fonts: { sans: sansData, serif: serifData }
	});
}
