/** A report as a whole HTML page without scripts: for clients, for paper, for the bundle. Runs on the server. */
import { render } from 'svelte/server';
import { keyInGroups } from '$core/report/seal';
import type { ReportView } from '$core/report/view';
import { reportWordsIn } from '$core/wording/reportWords';
import ReportDocument from './ReportDocument.svelte';

export interface PageOptions {
	pictureOf: (key: string) => string;
	/** Addresses of the fonts, or the fonts themselves as data. */
	fonts: { sans: string; serif: string };
	/** Public key of whoever signs the report; null for nobody. */
	key: string | null;
}

const face = (family: string, source: string) =>
	`@font-face{font-family:'${family}';src:url(${source}) format('woff2');font-weight:200 900;font-display:swap}`;

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

export function reportPage(report: ReportView, { pictureOf, fonts, key }: PageOptions): string {
	const signed = key ? reportWordsIn(report.language).say('report.key', { key: keyInGroups(key) }) : '';
	const { head, body } = render(ReportDocument, { props: { report, pictureOf, signed } });
	return `<!doctype html><html lang="${report.language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><meta name="referrer" content="no-referrer"><title>${escaped(report.title)}</title><style>html{background:#faf8f3;text-size-adjust:100%}body{margin:0}@media print{html{background:#fff}}${face('Source Sans', fonts.sans)}${face('Source Serif', fonts.serif)}</style>${head}</head><body><main>${body}</main></body></html>`;
}
