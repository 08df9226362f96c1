/** The list of a site's pages at its largest: import, memory, lists with filters, proposals. */
import { once } from 'node:events';
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { proposeSample } from '$core/pages/coverage';
import { seededRandom } from '$core/stats/random';
import { insertSite, existingSite } from '../src/lib/server/rooms/clients/queries/sites';
import { createClient } from '../src/lib/server/rooms/clients/commands';
import { newClient } from '$core/clients/client';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { importSitemap, importTraffic } from '../src/lib/server/rooms/pages/importing';
import { pagesView } from '../src/lib/server/rooms/pages/view';
import { changePages } from '../src/lib/server/rooms/pages/commands';
import { siteInput } from '../test/support/clients';
import { printTable, type Row } from './table';

const ADDRESSES = 50_000;
const LINES = 1_000_000;
const TYPES = ['product', 'article', 'listing', 'landing', 'contact'];
const MB = 1024 * 1024;

type What = 'sitemap' | 'traffic' | 'nothing';
interface Measured {
	ms: number;
	/** Most memory of the process, beyond what it had before, bytes. */
	peak: number;
	pages: number;
}

/** In a process of its own, so that its memory is its own. */
async function importIn(folder: string, file: string, what: What): Promise<Measured> {
	const db = openDatabase(folder);
	const siteId = insertSite(db, createClient(db, newClient(what)), siteInput('shop.test'));
	let peak = 0;
	global.gc?.();
	const before = process.memoryUsage().rss;
	const timer = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 5);
	const began = performance.now();
	const result =
		what === 'sitemap' ? await importSitemap(db, siteId, file, 'bench') : await importTraffic(db, siteId, file, null);
	const ms = performance.now() - began;
	clearInterval(timer);
	return { ms, peak: Math.max(peak, process.memoryUsage().rss) - before, pages: result.pages };
}

async function writeFile(file: string, parts: Iterable<string>): Promise<void> {
	const stream = createWriteStream(file);
	for (const part of parts) if (!stream.write(part)) await once(stream, 'drain');
	stream.end();
	await once(stream, 'finish');
}

function* sitemapOf(n: number) {
	yield '<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">';
	for (let i = 0; i < n; i++)
		yield `<url><loc>https://shop.test/${TYPES[i % 5]}/thing-number-${i}</loc><lastmod>2026-11-01</lastmod></url>\n`;
	yield '</urlset>';
}

/** As many lines as programs with a line for each day and page write. */
function* trafficOf(n: number) {
	yield 'Day;Page;Visits;Revenue\n';
	const random = seededRandom(3);
	for (let i = 0; i < n; i++)
		yield `2026-10-${(i % 31) + 1};https://shop.test/${TYPES[i % 5]}/thing-number-${Math.floor(random() * 80_000)};${i % 900};${i % 70},50\n`;
}

function inChild(folder: string, file: string, what: What): Promise<Measured> {
	return new Promise((resolve, reject) => {
		const child = fork(fileURLToPath(import.meta.url), [folder, file, what], {
			execArgv: ['--expose-gc', '--import', 'tsx']
		});
		child.once('message', (measured) => resolve(measured as Measured));
		child.once('exit', (code) => code && reject(new Error(`the import ended with ${code}`)));
	});
}

const [folderAsked, fileAsked, whatAsked] = process.argv.slice(2);
if (process.send && folderAsked) {
	process.send(await importIn(folderAsked, fileAsked!, whatAsked as What));
	process.exit();
}

const folder = mkdtempSync(join(tmpdir(), 'zafra-bench-'));
const rows: Row[] = [];
const sitemap = join(folder, 'sitemap.xml');
const traffic = join(folder, 'traffic.csv');
await writeFile(sitemap, sitemapOf(ADDRESSES));
await writeFile(traffic, trafficOf(LINES));

const listed = await inChild(folder, sitemap, 'sitemap');
rows.push({
	what: `sitemap of ${listed.pages} addresses`,
	measured: `${(listed.ms / 1000).toFixed(1)} s`,
	limit: '10 s',
	holds: listed.ms < 10_000
});
rows.push({
	what: 'memory that it takes',
	measured: `${(listed.peak / MB).toFixed(0)} MB`,
	limit: '150 MB',
	holds: listed.peak < 150 * MB
});
const table = await inChild(folder, traffic, 'traffic');
rows.push({
	what: `traffic table of a million lines, ${table.pages} pages kept`,
	measured: `${(table.ms / 1000).toFixed(1)} s`,
	limit: 'none set',
	holds: true
});
rows.push({
	what: 'memory that it takes',
	measured: `${(table.peak / MB).toFixed(0)} MB`,
	limit: '200 MB',
	holds: table.peak < 200 * MB
});

const db = openDatabase(folder);
const siteId = db
	.prepare(`SELECT site.id FROM site JOIN client ON client.id = client_id WHERE client.name = 'traffic'`)
	.pluck()
	.get() as number;
for (const type of TYPES) {
	const ids = db
		.prepare('SELECT id FROM page WHERE site_id = ? AND url LIKE ?')
		.pluck()
		.all(siteId, `%/${type}/%`) as number[];
	changePages(db, ids, { type: type });
}
const site = existingSite(db, siteId);
const views = [
	['the list', {}],
	['filtered by words', { words: 'number-77' }],
	['filtered by type and quiet ones', { type: 'article', which: 'quiet' as const }],
	['the last page of the list', {}]
] as const;
for (const [name, filter] of views) {
	const times = Array.from({ length: 7 }, () => {
		const began = performance.now();
		pagesView(db, site, filter, name.startsWith('the last') ? 9999 : 1);
		return performance.now() - began;
	}).sort((a, b) => a - b);
	rows.push({
		what: `${name}, of ${ADDRESSES} pages, with coverage`,
		measured: `${times[3]!.toFixed(0)} ms`,
		limit: '100 ms',
		holds: times[3]! < 100
	});
}
const random = seededRandom(9);
const pages = Array.from({ length: 5000 }, (_, id) => ({
	id,
	type: TYPES[id % 5]!,
	visits: Math.floor(1000 * random() ** 4)
}));
const began = performance.now();
const sample = proposeSample(pages, { most: 5000 });
const took = performance.now() - began;
rows.push({
	what: `proposal over 5,000 pages (${sample.length} taken)`,
	measured: `${took.toFixed(0)} ms`,
	limit: '1000 ms',
	holds: took < 1000
});
db.close();
rmSync(folder, { recursive: true });
printTable('Pages of a site', rows);
