/** Own visits: ingestion beside a running lab, a kill in the middle, growth, the Field screen, the script's size. */
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { gzipSync } from 'node:zlib';
import { execFileSync } from 'node:child_process';
import { binOf, binStart, weightOf } from '$core/field/histogram';
import { windowEnds, windowStart } from '$core/field/windows';
import { VIEWS } from '$core/field/tallies';
import { normalFrom, seededRandom } from '$core/stats/random';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { saveReading } from '../src/lib/server/rooms/field/queries/readings';
import { changePages, pastePages } from '../src/lib/server/rooms/pages/commands';
import { saveDay } from '../src/lib/server/rooms/visits/queries/merge';
import { histogramOfName, histogramsOver } from '../src/lib/server/rooms/visits/readings';
import { dayNumber, openVisits } from '../src/lib/server/rooms/visits/store';
import { bucketId, tallyId } from '../src/lib/server/rooms/visits/queries/store';
import { startApp, type TestApp } from '../test/support/app';
import { clientWithSite } from '../test/support/clients';
import { aBeacon, aVisit } from '../test/support/visits';
import { printTable, type Row } from './table';

const VISITS_A_DAY = 1_000_000;
/** The busiest hour has four times the average. */
const PEAK_PER_SECOND = (4 * VISITS_A_DAY) / 86_400;
const SECONDS = 60;
const PAGES = 200;
const AGENT = 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/156.0.0.0 Mobile Safari/537.36';
const HOST = 'https://skerry-line.test';

/** Web on the first processor, the lab and its browser on the second, as far as there are two. */
function pin(pid: number, processor: number): void {
	if (cpus().length < 2) return;
	try {
		execFileSync('taskset', ['-a', '-cp', String(processor), String(pid)], { stdio: 'ignore' });
	} catch {
		// No taskset: the table says so.
	}
}

/** With theirs: the lab's browser has a dozen processes. */
function childrenOf(pid: number): number[] {
	try {
		const text = execFileSync('pgrep', ['-P', String(pid)], { encoding: 'utf8' });
		const own = text.split('\n').filter(Boolean).map(Number);
		return own.flatMap((child) => [child, ...childrenOf(child)]);
	} catch {
		return [];
	}
}

interface Sent {
	acknowledged: Set<string>;
	latencies: number[];
	refused: number;
}

/** An open loop: beacons leave on time, whether or not the ones before were answered. */
async function sendFor(app: TestApp, key: string, token: string, seconds: number, prefix: string): Promise<Sent> {
	const sent: Sent = { acknowledged: new Set(), latencies: [], refused: 0 };
	const random = seededRandom(7);
	const open: Promise<void>[] = [];
	const began = performance.now();
	for (let i = 0; i < seconds * PEAK_PER_SECOND; i++) {
		const due = began + (i * 1000) / PEAK_PER_SECOND;
		if (due > performance.now()) await pause(due - performance.now());
		const lcp = 1500 * Math.exp(0.45 * normalFrom(random));
		const id = `${prefix}-${String(i).padStart(8, '0')}`;
		const metrics = { lcp, inp: 90, cls: 0.02, fcp: 0.7 * lcp, ttfb: 300 };
		const visit = aVisit({ id, path: `/page-${i % PAGES}`, metrics });
		const body = JSON.stringify(aBeacon([visit], { key, token, device: i % 3 ? 'phone' : 'desktop' }));
		const headers = { origin: HOST, 'user-agent': AGENT };
		const at = performance.now();
		open.push(
			fetch(`${app.url}/visit`, { method: 'POST', headers, body }).then(
				({ status }) => {
					sent.latencies.push(performance.now() - at);
					if (status === 204) sent.acknowledged.add(id);
					else sent.refused++;
				},
				() => void sent.refused++
			)
		);
	}
	await Promise.all(open);
	return sent;
}

const quantile = (values: readonly number[], share: number) =>
	[...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN;

async function ingestion(): Promise<Row[]> {
	const app = await startApp({ environment: { ZAFRA_VISITS_A_MINUTE: '1000000' } });
	try {
		const { body: client } = await app.api('POST', '/api/clients', { name: 'Skerry Line' });
		const site = { clientId: client.id, host: 'skerry-line.test', name: 'Ferries', role: 'own' };
		const { id } = (await app.api('POST', '/api/sites', site)).body;
		const urls = Array.from({ length: PAGES }, (_, i) => `/page-${i}`).join('\n');
		await app.api('POST', '/api/pages', { siteId: id, addresses: urls.split('\n') });
		const { key } = (await app.api('POST', `/api/visits/${id}`)).body;
		const script = await (await fetch(`${app.url}/visit/zafra.js?site=${key}`)).text();
		const { token } = JSON.parse(/zafraVisits=(\{.*?\});/s.exec(script)![1]!) as { token: string };
		await startTrial(app);
		pin(app.pid, 0);
		for (const child of childrenOf(app.pid)) pin(child, 1);
		const calm = await sendFor(app, key, token, SECONDS, 'calm');
		const during = sendFor(app, key, token, 20, 'kill');
		await pause(8000);
		await app.stop('SIGKILL');
		await app.restart();
		const killed = await during;
		await app.stop();
		const visits = openVisits(app.folder);
		const stored = new Set(visits.prepare('SELECT id FROM visit').pluck().all() as string[]);
		const range = { siteId: id, buckets: null, device: null, from: '2020-01-01', until: '2040-01-01' };
		const counted = weightOf(histogramOfName(visits, histogramsOver(visits, range), VIEWS));
		visits.close();
		const acknowledged = [...calm.acknowledged, ...killed.acknowledged];
		const lost = acknowledged.filter((item) => !stored.has(item)).length;
		const p99 = quantile(calm.latencies, 0.99);
		return [
			row(
				'beacons at the peak of a million visits a day',
				`${PEAK_PER_SECOND.toFixed(0)} a second, ${SECONDS} s`,
				'',
				true
			),
			row('beacon, p50', `${quantile(calm.latencies, 0.5).toFixed(1)} ms`, '', true),
			row('beacon, p99, beside a lab that loads', `${p99.toFixed(1)} ms`, '50 ms', p99 < 50),
			row('not taken without a kill', String(calm.refused), '0', calm.refused === 0),
			row('acknowledged and lost after kill -9', `${lost} of ${acknowledged.length}`, '0', lost === 0),
			row('counted twice or not at all', `${counted - stored.size} of ${stored.size}`, '0', counted === stored.size)
		];
	} finally {
		await app.end();
	}
}

async function startTrial(app: TestApp): Promise<void> {
	const trial = {
		question: 'Is it?',
		kind: 'side-by-side',
		arms: [
			{ name: 'A', url: 'https://skerry-line.test/timetable', baseline: true },
			{ name: 'B', url: 'https://with-chat.skerry-line.test/timetable' }
		],
		conditions: ['phone'],
		rounds: 30,
		warmups: 0
	};
	const { body } = await app.api('POST', '/api/trials', trial);
	await app.api('POST', `/api/trials/${body.id}/start`);
	// Until the first load is under way.
	await pause(5000);
}

const row = (what: string, measured: string, limit: string, holds: boolean): Row => ({ what, measured, limit, holds });

const MB = 1e6;

/** Days of 200 pages on two devices, each as full as a million visits a day make it. */
function growth(): Row[] {
	const folder = mkdtempSync(join(tmpdir(), 'zafra-bench-'));
	const db = openVisits(folder);
	const random = seededRandom(3);
	const views = VISITS_A_DAY / (PAGES * 2);
	const metrics = [
		['lcp', 1800],
		['inp', 120],
		['cls', 0.04],
		['fcp', 1200],
		['ttfb', 500]
	] as const;
	const first = dayNumber('2026-10-01');
	const fill = db.transaction((from: number, until: number) => {
		for (let day = from; day < until; day++)
			for (let page = 0; page < PAGES; page++)
				for (const device of ['phone', 'desktop'] as const) {
					const all = new Map([[tallyId(db, VIEWS), new Map([[0, views]])]]);
					for (const [metric, middle] of metrics) {
						const bins = new Map<number, number>();
						for (let i = 0; i < views; i++) {
							const bin = binOf(metric, middle * Math.exp(0.55 * normalFrom(random)));
							bins.set(bin, (bins.get(bin) ?? 0) + 1);
						}
						all.set(tallyId(db, metric), bins);
					}
					saveDay(db, bucketId(db, 1, `/page-${page}`), device, day, all);
				}
	});
	const size = () => {
		db.pragma('wal_checkpoint(TRUNCATE)');
		return statSync(join(folder, 'visits.db')).size;
	};
	fill(first, first + 1);
	const before = size();
	// Three days tell a month: every day is as large as the next.
	fill(first + 1, first + 4);
	const month = ((size() - before) / 3) * 30.4;
	db.close();
	rmSync(folder, { recursive: true });
	return [row('growth in a month, 200 pages', `${(month / MB).toFixed(1)} MB`, '40 MB', month < 40 * MB)];
}

async function fieldScreen(): Promise<Row[]> {
	const fill = (folder: string) => {
		const db = openDatabase(folder);
		const { siteId } = clientWithSite(db, 'skerry-line.test', 'Skerry Line');
		pastePages(db, siteId, Array.from({ length: PAGES }, (_, i) => `/page-${i}`).join('\n'));
		changePages(
			db,
			Array.from({ length: PAGES }, (_, i) => i + 1),
			{ isChosen: true }
		);
		const bins = Array.from({ length: 120 }, (_, i): [number, number] => [binStart('lcp', 150 + i), 1 / 120]);
		const metric = { p75: 2400, shares: [0.7, 0.2, 0.1] as [number, number, number], bins };
		const metrics = { lcp: metric, inp: metric, cls: { ...metric, p75: 0.08 }, fcp: metric, ttfb: metric };
		const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
		db.transaction(() => {
			for (const until of windowEnds(yesterday, 13, 7))
				for (let pageId = 1; pageId <= PAGES; pageId++)
					for (const device of ['phone', 'desktop'] as const)
						saveReading(db, siteId, { pageId, device, source: 'panel', from: windowStart(until), until, metrics });
		})();
		db.close();
	};
	const app = await startApp({ prepare: fill, environment: { ZAFRA_RUNNER: 'off' } });
	try {
		const times: number[] = [];
		for (let i = 0; i < 12; i++) {
			const at = performance.now();
			await (await fetch(`${app.url}/field?client=1`)).text();
			times.push(performance.now() - at);
		}
		const middle = quantile(times.slice(2), 0.5);
		return [row('Field screen, 200 pages x 2 devices x 13 windows', `${middle.toFixed(0)} ms`, '100 ms', middle < 100)];
	} finally {
		await app.end();
	}
}

async function scriptSize(): Promise<Row[]> {
	const app = await startApp({ environment: { ZAFRA_RUNNER: 'off' } });
	try {
		const { body: client } = await app.api('POST', '/api/clients', { name: 'Skerry Line' });
		const site = { clientId: client.id, host: 'skerry-line.test', name: 'Ferries', role: 'own' };
		const { id } = (await app.api('POST', '/api/sites', site)).body;
		const { key } = (await app.api('POST', `/api/visits/${id}`)).body;
		const text = await (await fetch(`${app.url}/visit/zafra.js?site=${key}`)).text();
		const bytes = gzipSync(text).length;
		return [row('script, gzipped', `${bytes} B`, '8000 B', bytes <= 8000)];
	} finally {
		await app.end();
	}
}

const rows = [...(await scriptSize()), ...growth(), ...(await fieldScreen()), ...(await ingestion())];
printTable('Own visits', rows);
process.exit();
