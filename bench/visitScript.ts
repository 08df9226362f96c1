/** What the visits' script costs its page: main thread on a slowed phone, and the vitals that it measures. */
import { createServer } from 'node:http';
import { gzipSync } from 'node:zlib';
import { buildSync } from 'esbuild';
import { chromium } from 'playwright-core';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { metricOf } from '$core/metrics/catalogue';
import { seededRandom, shuffled } from '$core/stats/random';
import { pairedShift } from '$core/stats/signedRank';
import { median } from '$core/stats/summary';
import { findChromium } from '../src/lab/browser/find';
import { Lab } from '../src/lab/lab';
import { COMPILE_ASIDE } from '../src/lib/server/rooms/visits/script';
import { startApp } from '../test/support/app';
import { listen, rule } from '../test/support/world';
import { printTable, type Row } from './table';

const ROUNDS = Number(process.env.BENCH_ROUNDS ?? 100);
const MOST_TRIES = 3;
const RUNS_EACH = 7;
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
/** A style sheet that must come before the first paint, as most pages have: a frame of the screen is 1 % of it. */
const style = `/*${'x'.repeat(150_000)}*/h1{color:#1d2b26}`;
const words = '<p>Every crossing of the day, from Harrow Quay and back.</p>'.repeat(400);
const page = (tag: string) =>
	`<!doctype html><html lang="en"><head><title>Visited</title><link rel="stylesheet" href="/style.css">${tag}</head><body><h1 style="font-size:60px">Harrow Quay</h1><img src="/picture" alt="" width="300" height="200">${words}<button>Menu</button></body></html>`;
const tag = (name: string) => `<script async src="/${name}.js"></script>`;
/** For comparison, compiled as the script itself is: what no script that reports vitals can do without. */
const bundled = (contents: string) =>
	COMPILE_ASIDE +
	buildSync({ stdin: { contents, resolveDir: '.' }, bundle: true, minify: true, write: false, format: 'iife' })
		.outputFiles[0]!.text;
const SCRIPTS: Record<string, string> = {
	script,
	library: bundled(
		"import * as library from 'web-vitals'; for (const on of [library.onTTFB, library.onFCP, library.onLCP, library.onCLS, library.onINP]) on(() => undefined);"
	),
	least: bundled(
		"const observer = new PerformanceObserver(() => undefined); for (const type of ['paint', 'largest-contentful-paint', 'layout-shift', 'event']) observer.observe({ type, buffered: true }); addEventListener('pagehide', () => undefined); addEventListener('visibilitychange', () => undefined);"
	)
};
const server = await listen(
	createServer((request, response) => {
		const send = (type: string, body: string | Buffer) => response.writeHead(200, { 'content-type': type }).end(body);
		const name = request.url!.slice(1).replace('.js', '');
		if (name === 'style.css') send('text/css', style);
		else if (request.url!.endsWith('.js'))
			response
				.writeHead(200, { 'content-type': 'text/javascript', 'content-encoding': 'gzip' })
				.end(gzipSync(SCRIPTS[name]!));
		else if (request.url === '/picture') send('image/svg+xml', picture);
		else if (request.method === 'POST') response.writeHead(204).end();
		else send('text/html; charset=utf-8', page(name in SCRIPTS ? tag(name) : ''));
	})
);

/** What the browser's trace calls running a script: its first run and each later call into it. */
const RUNS = new Set(['EvaluateScript', 'FunctionCall', 'v8.compile']);
interface TraceEvent {
	name: string;
	ph: string;
	/** The thread's own clock, µs: what other programs took of the processor is not in it. */
	tts?: number;
	tdur?: number;
	args?: { data?: { url?: string } };
}

/** Main thread's time for the script at `path`, from load to leaving, by the browser's trace. */
async function mainThreadMs(path: string): Promise<{ all: number; longest: number }> {
	const browser = await chromium.launch({
		executablePath: findChromium()!,
		args: ['--no-sandbox', `--host-resolver-rules=MAP visited.test:80 127.0.0.1:${server.port}`]
	});
	const tab = await browser.newPage({ viewport: { width: 384, height: 810 } });
	const session = await tab.context().newCDPSession(tab);
	await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWDOWN });
	const events: TraceEvent[] = [];
	session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as never as TraceEvent[])));
	const traceConfig = { includedCategories: ['devtools.timeline', 'v8'] };
	await session.send('Tracing.start', { traceConfig, transferMode: 'ReportEvents' });
	await tab.goto(`http://visited.test${path}`);
	await tab.waitForTimeout(1500);
	await tab.click('button');
	await tab.waitForTimeout(800);
	await tab.evaluate(() => {
		Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
		document.dispatchEvent(new Event('visibilitychange'));
	});
	const complete = new Promise<void>((done) => session.once('Tracing.tracingComplete', () => done()));
	await session.send('Tracing.end');
	await complete;
	await browser.close();
	const own = events.filter(({ name, ph, args }) => ph === 'X' && RUNS.has(name) && args?.data?.url?.endsWith('.js'));
	return {
		all: unionLength(own.map(({ tts = 0, tdur = 0 }) => [tts, tts + tdur])) / 1000,
		longest: Math.max(...own.map(({ tdur = 0 }) => tdur)) / 1000
	};
}

/** Time covered by intervals: a compilation is inside of the run that asked for it. */
function unionLength(intervals: [number, number][]): number {
	let end = -Infinity;
	let length = 0;
	for (const [from, to] of intervals.sort(([a], [b]) => a - b)) {
		length += Math.max(0, to - Math.max(from, end));
		end = Math.max(end, to);
	}
	return length;
}

const runs: Record<'script' | 'library' | 'least', { all: number; longest: number }[]> = {
	script: [],
	library: [],
	least: []
};
for (let i = 0; i < RUNS_EACH; i++)
	for (const which of ['script', 'library', 'least'] as const) runs[which].push(await mainThreadMs(`/${which}`));
const spent = (which: keyof typeof runs) =>
	`${median(runs[which].map(({ all }) => all)).toFixed(1)} ms (${runs[which].map(({ all }) => all.toFixed(0)).join(', ')}); longest at a stretch ${median(runs[which].map(({ longest }) => longest)).toFixed(1)} ms`;

const lab = new Lab({ hostMap: [rule('visited.test', server.port)] });
const random = seededRandom(11);
/** As a trial does: a disturbed load is made again, at most twice. */
async function countedFigures(arm: string, conditions: Conditions): Promise<Record<string, number>> {
	for (let tries = 1; ; tries++) {
		const { record } = await lab.measure({ url: `http://visited.test/${arm}`, conditions, steps: [] });
		if (tries < MOST_TRIES && record.environment.calm?.disturbed) continue;
		return record.figures as Record<string, number>;
	}
}

/** The vitals under some conditions, with the script against without. */
async function effectUnder(conditions: Conditions): Promise<Row[]> {
	const figures: Record<string, Record<string, number>[]> = { script: [], without: [] };
	for (let round = 0; round < ROUNDS; round++)
		for (const arm of shuffled(['script', 'without'], random))
			figures[arm]!.push(await countedFigures(arm, conditions));
	return METRICS.map((metric): Row => {
		const before = median(figures.without!.map((record) => record[metric]!));
		const differences = figures.script!.map((record, i) => record[metric]! - figures.without![i]![metric]!);
		const { estimate, low, high } = pairedShift(differences);
		const share = (value: number | null) => `${(((value ?? NaN) / before) * 100).toFixed(1)} %`;
		const isInside = low !== null && high !== null && low >= -0.03 * before && high <= 0.03 * before;
		return {
			what: `${conditions.name}, ${metricOf(metric).name} with the script against without, ${ROUNDS} rounds`,
			measured: `${share(estimate)} (${share(low)} to ${share(high)}) of ${before.toFixed(0)} ms`,
			limit: 'within 3 %',
			holds: isInside
		};
	});
}
const rows: Row[] = [];
if (ROUNDS > 0) for (const conditions of BUILT_IN_CONDITIONS) rows.push(...(await effectUnder(conditions)));
await lab.close();
server.close();

printTable('What the visits’ script costs its page', [
	{
		what: `main thread, slowed ${SLOWDOWN} times, load to leaving, middle of ${RUNS_EACH}`,
		measured: spent('script'),
		limit: '10 ms',
		holds: median(runs.script.map(({ all }) => all)) < 10
	},
	{ what: 'the same of web-vitals’ plain build alone, reporting to nobody', measured: spent('library') },
	{ what: 'the same of an observer of all entries and two listeners, without any library', measured: spent('least') },
	...rows
]);
process.exit();
