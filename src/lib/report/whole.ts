/** A report as one file that needs nothing else, and what names the way in which it is drawn. */
import sansData from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?inline';
import serifData from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2?inline';
import type { ReportView } from '$core/report/view';
import { reportPage } from './page';
import { SAMPLE } from './sample';

const PNG = 0x89;
export const mediaOf = (bytes: Uint8Array) => (bytes[0] === PNG ? 'image/png' : 'image/webp');

/** @param key of whoever signs it; null for nobody @param pictureOf bytes by key; null for none */
export function wholeReport(
	view: ReportView,
	key: string | null,
	pictureOf: (key: string) => Uint8Array | null
): string {
	const dataOf = (name: string) => {
		const bytes = pictureOf(name);
		return bytes ? `data:${mediaOf(bytes)};base64,${Buffer.from(bytes).toString('base64')}` : '';
	};
	return reportPage(view, { pictureOf: dataOf, fonts: { sans: sansData, serif: serifData }, key });
}

let version: string | null = null;

/** Two Zafras that draw a sample of all blocks alike draw reports alike. @param sha256 hexadecimal sum of a text */
export function drawingVersion(sha256: (text: string) => string): string {
	return (version ??= sha256(wholeReport(SAMPLE, 'A'.repeat(43), () => Uint8Array.of(PNG))).slice(0, 16));
}
