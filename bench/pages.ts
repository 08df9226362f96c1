/** The app's own pages: weight and serving time of the sheet of a trial with about 100 loads. */
import { brotliDecompressSync, gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { chromium } from 'playwright-core';
import { median } from '$core/stats/summary';
import { findChromium } from '../src/lab/browser/find';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { importTrial, packLines } from '../src/lib/server/demo/demo';
import { startApp } from '../test/support/app';
import { printTable } from './table';

const app = await startApp({ demo: true });
// The recorded trial, its loads three times over in new rounds: 44 become 124.
const [head, ...lines] = brotliDecompressSync(readFileSync('demo/trials/01-chat-on-the-timetable.ndjson.br'))
	.toString()
	.split('\n');
const design = JSON.parse(head!) as { design: { rounds: number } };
const rounds = design.design.rounds;
design.design.rounds = rounds * 3;
const more = lines.flatMap((line) => {
	const load = JSON.parse(line) as { round: number; warmup: boolean };
	return load.warmup
		? [line]
		: [0, 1, 2].map((times) => JSON.stringify({ ...load, round: load.round + times * rounds }));
});
const db = openDatabase(app.folder);
const id = importTrial(db, packLines([JSON.stringify(design), ...more], 4));
db.close();

const times: number[] = [];
for (let i = 0; i < 40; i++) {
	const from = performance.now();
	await (await fetch(`${app.url}/trials/${id}`)).text();
	if (i >= 5) times.push(performance.now() - from);
}
const browser = await chromium.launch({ executablePath: findChromium()!, args: ['--no-sandbox'] });
const page = await browser.newPage();
const sizes = { script: 0, stylesheet: 0 };
const weighing: Promise<void>[] = [];
page.on('response', (response) => {
	const kind = response.request().resourceType() as keyof typeof sizes;
	if (kind in sizes) weighing.push(response.body().then((body) => void (sizes[kind] += gzipSync(body).length)));
});
await page.goto(`${app.url}/trials/${id}`, { waitUntil: 'load' });
await page.waitForTimeout(800);
await Promise.all(weighing);
await browser.close();
await app.end();
printTable(`Pages: the sheet of a trial with ${more.length} loads`, [
	{
		what: 'served, median',
		measured: `${median(times).toFixed(0)} ms`,
		limit: 'at most 60 ms',
		holds: median(times) <= 60
	},
	{
		what: 'script, gzipped',
		measured: `${(sizes.script / 1000).toFixed(1)} kB`,
		limit: 'at most 150 kB',
		holds: sizes.script <= 150_000
	},
	{
		what: 'style, gzipped',
		measured: `${(sizes.stylesheet / 1000).toFixed(1)} kB`,
		limit: 'at most 48 kB',
		holds: sizes.stylesheet <= 48_000
	}
]);
