/** Frozen versions as HTML: with pictures and fonts by address, or with all of them inside. */
import sansUrl from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?url';
import serifUrl from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2?url';
import { reportPage } from '$lib/report/page';
import { wholeReport } from '$lib/report/whole';
import type { Db } from '$lib/server/base/db/connection';
import { findReportPicture } from '$lib/server/rooms/reports/pictures';
import { frozenOf } from '$lib/server/rooms/reports/view';

/** A report has no scripts, and asks nobody but Zafra for its pictures and fonts. */
export const REPORT_POLICY =
	"default-src 'none'; img-src 'self' data:; font-src 'self' data:; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'";

/** @param base address under which the pictures are @param key with which its bundle is signed */
export function linkedPage(db: Db, versionId: number, base: string, key: string): string {
	return reportPage(frozenOf(db, versionId).view, {
		pictureOf: (key) => `${base}/${key}`,
		fonts: { sans: sansUrl, serif: serifUrl },
		key
	});
}

/** One file that needs nothing else. */
export function wholePage(db: Db, versionId: number, key: string): string {
	return wholeReport(frozenOf(db, versionId).view, key, (picture) => findReportPicture(db, versionId, picture));
}
