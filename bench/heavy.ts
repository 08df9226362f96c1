/**
 * A page of 2,000 requests and 20 MB: the lab's time and memory; what loads weigh when stored; the Load screen with
 * it.
 */
import { gzipSync } from 'node:zlib';
import { chromium } from 'playwright-core';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { median } from '$core/stats/summary';
import { findChromium } from '../src/lab/browser/find';
import { Lab } from '../src/lab/lab';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { insertLoad } from '../src/lib/server/rooms/loads/loads';
import { startApp } from '../test/support/app';
import { rule, serve, startDemoWeb } from '../test/support/world';
import { printTable, type Row } from './table';

const REQUESTS = 2000;
const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS;
const rows: Row[] = [];

/**
 * One pixel, and padding that decoders pass over. An SVG image each would be a document each, and minutes of the
 * page's own work.
 */
const PICTURE = Buffer.concat([
	Buffer.from('R0lGODlhAQABAIAAAP8AAP///ywAAAAAAQABAAACAkQBADs=', 'base64'),
	Buffer.alloc(10_000)
]);
const server = await serve((request, response) => {
	const url = new URL(request.url ?? '/', 'http://x');
	if (url.pathname !== '/')
		return void response.writeHead(200, { 'content-type': 'image/gif', 'cache-control': 'max-age=60' }).end(PICTURE);
	const count = Number(url.searchParams.get('n'));
	response
		.writeHead(200, { 'content-type': 'text/html' })
		.end(
			`<!doctype html><title>Many</title><h1>Many requests</h1>${Array.from({ length: count }, (_, i) => `<img src="http://h${i % 12}.test/p?i=${i}" width="20" height="20" alt="">`).join('')}`
		);
});
const web = await startDemoWeb();
const lab = new Lab({
	hostMap: [
		...Array.from({ length: 12 }, (_, i) => rule(`h${i}.test`, server.port)),
		rule('many.test', server.port),
		...web.rules
	],
	trustedKeys: [web.keyHash]
});
let most = 0;
const watching = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
const heavy = await lab.measure({ url: `http://many.test/?n=${REQUESTS}`, conditions: DESKTOP!, steps: [] });
clearInterval(watching);
const { record } = heavy;
if (record.failure) throw new Error(record.failure.message);
rows.push({
	what: `${record.figures.requests} requests, ${(record.figures.wire! / 1e6).toFixed(1)} MB: in all`,
	measured: `${(record.labMs / 1000).toFixed(1)} s`,
	limit: 'under 60 s',
	holds: record.labMs < 60_000 && record.figures.requests! > REQUESTS
});
rows.push({
	what: 'memory of the process meanwhile',
	measured: `${(most / 1e6).toFixed(0)} MB`,
	limit: 'under 800 MB',
	holds: most < 800e6
});

const hundred = (await lab.measure({ url: 'http://many.test/?n=99', conditions: DESKTOP!, steps: [] })).record;
const stored = gzipSync(JSON.stringify(hundred)).length;
rows.push({
	what: `stored record of ${hundred.requests.length} requests`,
	measured: `${(stored / 1000).toFixed(1)} kB`,
	limit: 'at most 60 kB',
	holds: stored <= 60_000
});
for (const [name, url, conditions] of [
	['timetable with chat, phone', 'https://with-chat.skerry-line.test/timetable', PHONE!],
	['home with ads, desktop', 'https://with-ads.skerry-line.test/', DESKTOP!],
	['museum home, desktop', 'https://orrery-hall.test/', DESKTOP!]
] as const) {
	const measuredValue = await lab.measure({ url, conditions, steps: [] });
	const bytes = measuredValue.frames.reduce((sum, frame) => sum + frame.length, 0);
	const size = gzipSync(JSON.stringify(measuredValue.record)).length;
	rows.push({
		what: `frames stored: ${name} (${measuredValue.frames.length} frames)`,
		measured: `${(bytes / 1000).toFixed(0)} kB, record of ${measuredValue.record.requests.length} requests ${(size / 1000).toFixed(1)} kB`,
		limit: 'at most 250 kB',
		holds: bytes <= 250_000
	});
}
await lab.close();
server.close();
web.close();

const app = await startApp();
const db = openDatabase(app.folder);
const id = insertLoad(
	db,
	{ jobId: null, slot: null, conditionId: 'desktop', conditionsHash: null, clientId: null },
	heavy
);
db.close();
const browser = await chromium.launch({ executablePath: findChromium()!, args: ['--no-sandbox'] });
const ready: number[] = [];
const rates: number[] = [];
for (let i = 0; i < 6; i++) {
	const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
	// Interactive: a row answers to a click; asked for in the page itself, as often as it draws.
	await page.addInitScript({
		content: `(function look() {
			if (document.querySelector('section.details')) return void (window.readyAt = performance.now());
			document.querySelector('[data-row="3"]')?.click();
			requestAnimationFrame(look);
		})();`
	});
	await page.goto(`${app.url}/loads/${id}`);
	await page.waitForFunction(() => (window as unknown as { readyAt?: number }).readyAt !== undefined);
	const readyAt = await page.evaluate(() => (window as unknown as { readyAt: number }).readyAt);
	if (i > 0) ready.push(readyAt);
	const rate = await page.evaluate(async () => {
		const list = document.querySelector<HTMLElement>('[data-testid=requests]')!;
		list.scrollTop = list.scrollHeight / 2;
		await new Promise((next) => setTimeout(next, 300));
		let frames = 0;
		const from = performance.now();
		while (performance.now() - from < 2000) {
			list.scrollTop += 30;
			await new Promise((next) => requestAnimationFrame(next));
			frames++;
		}
		return (frames * 1000) / (performance.now() - from);
	});
	if (i > 0) rates.push(rate);
	await page.close();
}
await browser.close();
await app.end();
rows.push({
	what: `Load screen with ${record.requests.length} requests: a row answers, median`,
	measured: `${median(ready).toFixed(0)} ms`,
	limit: 'under 1,000 ms',
	holds: median(ready) < 1000
});
rows.push({
	what: 'scrolling in the middle of its list, median',
	measured: `${median(rates).toFixed(0)} frames/s`,
	limit: 'at least 50',
	holds: median(rates) >= 50
});
printTable('Heavy pages, stored sizes, Load screen', rows);
process.exit();
