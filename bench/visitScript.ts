/** What the visits' script costs its page: main thread on a slowed phone, and the vitals that it measures. */
import { createServer } from 'node:http';
import { chromium } from 'playwright-core';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions';
import { metricOf } from '$core/metrics/catalogue';
import { seededRandom, shuffled } from '$core/stats/random';
import { pairedShift } from '$core/stats/signedRank';
import { median } from '$core/stats/summary';
import { findChromium } from '../src/lab/browser/find';
import { Lab } from '../src/lab/lab';
import { startApp } from '../test/support/app';
import { listen, rule } from '../test/support/world';
import { printTable, type Row } from './table';

const ROUNDS = 12;
const METRICS = ['ttfb', 'fcp', 'lcp'] as const;
const SLOWDOWN = 4;

const app = await startApp({ environment: { ZAFRA_RUNNER: 'off' } });
const { body: client } = await app.api('POST', '/api/clients', { name: 'Skerry Line' });
const site = { clientId: client.id, host: 'visited.test', name: 'Visited', role: 'own' };
const { id } = (await app.api('POST', '/api/sites', site)).body;
const { key } = (await app.api('POST', `/api/visits/${id}`)).body;
const script = await (await fetch(`${app.url}/visit/zafra.js?site=${key}`)).text();
await app.end();

const picture = Buffer.alloc(120_000, 7);
const words = '<p>Every crossing of the day, from Harrow Quay and back.</p>'.repeat(400);
const page = (tag: string) =>
	`<!doctype html><html lang="en"><head><title>Visited</title>${tag}</head><body><h1 style="font-size:60px">Harrow Quay</h1><img src="/picture" alt="" width="300" height="200">${words}<button>Menu</button></body></html>`;
const TAG = '<script async src="/visit/zafra.js"></script>';
const server = await listen(
	createServer((request, response) => {
		const send = (type: string, body: string | Buffer) => response.writeHead(200, { 'content-type': type }).end(body);
		if (request.url === '/visit/zafra.js') send('text/javascript', script);
		else if (request.url === '/picture') send('image/svg+xml', picture);
		else if (request.method === 'POST') response.writeHead(204).end();
		else send('text/html; charset=utf-8', page(request.url === '/with' ? TAG : ''));
	})
);

/** Time of the script's own functions from load to leaving, by the browser's sampling profiler. */
async function mainThreadMs(): Promise<number> {
	const browser = await chromium.launch({
		executablePath: findChromium()!,
		args: ['--no-sandbox', `--host-resolver-rules=MAP visited.test:80 127.0.0.1:${server.port}`]
	});
	const tab = await browser.newPage({ viewport: { width: 393, height: 851 } });
	const session = await tab.context().newCDPSession(tab);
	await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWDOWN });
	await session.send('Profiler.enable');
	await session.send('Profiler.setSamplingInterval', { interval: 200 });
	await session.send('Profiler.start');
	await tab.goto('http://visited.test/with');
	await tab.waitForTimeout(1500);
	await tab.click('button');
	await tab.waitForTimeout(800);
	await tab.evaluate(() => {
		Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
		document.dispatchEvent(new Event('visibilitychange'));
	});
	const { profile } = await session.send('Profiler.stop');
	await browser.close();
	const own = new Set(profile.nodes.filter((node) => node.callFrame.url.endsWith('zafra.js')).map((node) => node.id));
	const deltas = profile.timeDeltas ?? [];
	return (profile.samples ?? []).reduce((sum, node, i) => sum + (own.has(node) ? deltas[i]! : 0), 0) / 1000;
}

const runs: number[] = [];
for (let i = 0; i < 5; i++) runs.push(await mainThreadMs());
const spent = median(runs);

const [phone] = BUILT_IN_CONDITIONS;
const lab = new Lab({ hostMap: [rule('visited.test', server.port)] });
const random = seededRandom(11);
const figures: Record<string, Record<string, number>[]> = { with: [], without: [] };
for (let round = 0; round < ROUNDS; round++)
	for (const arm of shuffled(['with', 'without'], random)) {
		const { record } = await lab.measure({ url: `http://visited.test/${arm}`, conditions: phone!, steps: [] });
		figures[arm]!.push(record.figures as Record<string, number>);
	}
await lab.close();
server.close();

const rows: Row[] = METRICS.map((metric) => {
	const before = median(figures.without!.map((one) => one[metric]!));
	const differences = figures.with!.map((one, i) => one[metric]! - figures.without![i]![metric]!);
	const { estimate, low, high } = pairedShift(differences);
	const share = (value: number | null) => `${(((value ?? NaN) / before) * 100).toFixed(1)} %`;
	const isInside = low !== null && high !== null && low >= -0.03 * before && high <= 0.03 * before;
	return {
		what: `${metricOf(metric).name} with the script against without, ${ROUNDS} rounds`,
		measured: `${share(estimate)} (${share(low)} to ${share(high)}) of ${before.toFixed(0)} ms`,
		limit: 'within 3 %',
		holds: isInside
	};
});
printTable('What the visits’ script costs its page', [
	{
		what: `main thread, slowed ${SLOWDOWN} times, load to leaving (middle of ${runs.map((ms) => ms.toFixed(1)).join(', ')})`,
		measured: `${spent.toFixed(1)} ms`,
		limit: '10 ms',
		holds: spent < 10
	},
	...rows
]);
process.exit();
