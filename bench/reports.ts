/** What a shared report costs its reader's phone, and how soon a report is printed. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { parseHostMap } from '$core/load/requests/hostMap';
import type { ReportDraft } from '$core/report/document';
import { median } from '$core/stats/summary';
import { Lab } from '../src/lab/lab';
import { startApp } from '../test/support/app';
import { until } from '../test/support/world';
import { printTable } from './table';

const LOADS = 7;
const LEAST_SCORE = 95;
const MOST_BYTES = 250_000;
const MOST_LCP_MS = 1500;
const MOST_PDF_MS = 6000;
const MOST_PDF_BYTES = 3_000_000;
const BOUND_PAGES = 20;
/** A report has no more. */
const MOST_BLOCKS = 80;
const RIGHT_TO_LEFT = 'האם הצ׳אט מאט את הדף?';
/** A folder to keep the printed reports in, for looking at them. */
const KEEP = process.env.BENCH_KEEP ?? '';

const environment: NodeJS.ProcessEnv = { ZAFRA_ORIGINS: 'http://zafra.test' };
const app = await startApp({ demo: true, environment });
const isFrozen = async () =>
	(await app.api('GET', '/api/reports')).body.reports.some((report: { number: number | null }) => report.number === 1);
await until(isFrozen, 180_000, 'a report of the demonstration to be frozen');
const { body } = await app.api('GET', '/api/reports');
const { id } = body.reports.find(
	({ title, number }: { title: string; number: number }) => number === 1 && title.startsWith('Did')
);
const version = `/api/reports/${id}/versions/1`;
const link = (await app.api('POST', `${version}/shares`, {})).body.url as string;

// 1. Printed by the app's own lab: from the wish to the file.
interface Printed {
	pages: number;
	ms: number;
	bytes: number;
}

async function printed(report: number): Promise<Printed> {
	const place = `/api/reports/${report}/versions/1`;
	const from = performance.now();
	await app.api('POST', `${place}/pdf`, { paper: 'A4' });
	const isPrinted = async () => (await app.api('GET', `${place}/pdf`)).body.pdfs[0].state !== 'waiting';
	while (!(await isPrinted())) await new Promise((resolve) => setTimeout(resolve, 25));
	const ms = performance.now() - from;
	const pdf = await (await fetch(`${app.url}/reports/${report}/versions/1/download/report-A4.pdf`)).arrayBuffer();
	if (KEEP) writeFileSync(`${KEEP}/report-${report}.pdf`, new Uint8Array(pdf));
	const { numPages } = await getDocument({ data: new Uint8Array(pdf.slice(0)), verbosity: 0 }).promise;
	return { pages: numPages, ms, bytes: pdf.byteLength };
}

/** A frozen report with its blocks so many times over, some of its words from right to left. */
async function longReport(times: number): Promise<number> {
	const { body: made } = await app.api('POST', '/api/reports', { trial: 1, title: 'A long report' });
	const { draft, revision } = (await app.api('GET', `/api/reports/${made.id}`)).body as {
		draft: ReportDraft;
		revision: number;
	};
	const blocks = Array.from({ length: times }, (_, i) =>
		draft.blocks.map((block) => ({ ...block, id: `${block.id}-${i}`, heading: i % 2 ? '' : RIGHT_TO_LEFT }))
	)
		.flat()
		.slice(0, MOST_BLOCKS);
	const long = { ...draft, blocks, disclosure: { isPaid: false, words: RIGHT_TO_LEFT } };
	const saved = await app.api('PATCH', `/api/reports/${made.id}`, { draft: long, revision });
	if (saved.status !== 200) throw new Error(JSON.stringify(saved.body));
	const frozen = await app.api('POST', `/api/reports/${made.id}/versions`);
	if (frozen.status !== 201) throw new Error(JSON.stringify(frozen.body));
	return made.id as number;
}

const prints = [await printed(id), await printed(await longReport(2)), await printed(await longReport(10))];

// 2. The link, as its reader's phone loads it.
await app.stop();
environment.ZAFRA_RUNNER = 'off';
await app.restart();
const lab = new Lab({ hostMap: parseHostMap(`zafra.test=${new URL(app.url).host}`) });
const phone = BUILT_IN_CONDITIONS.find((conditions) => conditions.id === 'phone')!;
const [scores, lcps, bytes]: [number[], number[], number[]] = [[], [], []];
for (let i = 0; i < LOADS; i++) {
	const { record } = await lab.measure({
		url: `http://zafra.test${new URL(link).pathname}`,
		conditions: phone,
		steps: []
	});
	scores.push(record.figures.score ?? 0);
	lcps.push(record.figures.lcp ?? Infinity);
	const isFrame = ({ url }: { url: string }) => url.includes('/pictures/frame/');
	bytes.push(
		record.requests.filter((request) => !isFrame(request)).reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0)
	);
}
await lab.close();
await app.end();

printTable(
	`A report as its readers get it (middle of ${LOADS} loads; Node ${execFileSync('node', ['-v'], { encoding: 'utf8' }).trim()})`,
	[
		{
			what: 'shared page on the phone: score',
			measured: median(scores).toFixed(0),
			limit: `at least ${LEAST_SCORE}`,
			holds: median(scores) >= LEAST_SCORE
		},
		{
			what: 'largest paint',
			measured: `${median(lcps).toFixed(0)} ms`,
			limit: `under ${MOST_LCP_MS} ms`,
			holds: median(lcps) < MOST_LCP_MS
		},
		{
			what: 'bytes without frames',
			measured: `${(median(bytes) / 1000).toFixed(0)} kB`,
			limit: `at most ${MOST_BYTES / 1000} kB`,
			holds: median(bytes) <= MOST_BYTES
		},
		...prints.flatMap(({ pages, ms, bytes: size }) => {
			// The limits are for a report of 12 pages.
			const isBound = pages <= BOUND_PAGES;
			return [
				{
					what: `PDF of ${pages} pages, from the wish to the file`,
					measured: `${(ms / 1000).toFixed(1)} s`,
					...(isBound && { limit: `under ${MOST_PDF_MS / 1000} s`, holds: ms < MOST_PDF_MS })
				},
				{
					what: 'its size',
					measured: `${(size / 1e6).toFixed(2)} MB`,
					...(isBound && { limit: `under ${MOST_PDF_BYTES / 1e6} MB`, holds: size < MOST_PDF_BYTES })
				}
			];
		})
	]
);
process.exit();
