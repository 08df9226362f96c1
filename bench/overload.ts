/**
 * Readers beside visitors' beacons, the lab idle: what web serves in time, and what becomes of the rest. An open loop
 * from a process of its own; middle of three runs of a minute.
 */
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { once } from 'node:events';
import { median } from '$core/stats/summary';
import { startApp, type TestApp } from '../test/support/app';
import type { Answers, SenderPlan, SenderResult } from './overloadSender';
import { percent, printTable, type Row } from './table';

const SECONDS = Number(process.env.BENCH_SECONDS ?? 60);
const RUNS = Number(process.env.BENCH_RUNS ?? 3);
const PAGES = [
	'/',
	'/trials',
	'/trials/1',
	'/loads',
	'/clients/1',
	'/pages',
	'/field',
	'/watch',
	'/reports',
	'/standings'
];

const quantile = (values: readonly number[], share: number) =>
	[...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? 0;
const ms = (value: number) => `${value.toFixed(0)} ms`;

/** Resident memory of a process, MB. */
function memoryMb(pid: number): number {
	return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1000;
}

async function send(app: TestApp, plan: Omit<SenderPlan, 'url'>): Promise<SenderResult> {
	const sender = fork('bench/overloadSender.ts', { execArgv: ['--import', 'tsx'] });
	sender.send({ ...plan, url: app.url } satisfies SenderPlan);
	const [result] = (await once(sender, 'message')) as [SenderResult];
	return result;
}

async function visitsOf(app: TestApp): Promise<{ key: string; token: string }> {
	const { key } = (await app.api('POST', '/api/visits/1')).body as { key: string };
	const script = await (await fetch(`${app.url}/visit/zafra.js?site=${key}`)).text();
	const { token } = JSON.parse(/zafraVisits=(\{.*?\});/s.exec(script)![1]!) as { token: string };
	return { key, token };
}

const environment = { ZAFRA_RUNNER: 'off', ZAFRA_PROXIES: '127.0.0.1', ZAFRA_VISITS_A_MINUTE: '100000' };
const app = await startApp({ demo: true, environment });
const rows: Row[] = [];
try {
	const own = await visitsOf(app);
	const warm = { ...own, seconds: 10, pagesASecond: 10, beaconsASecond: 50, pages: PAGES };
	await send(app, warm);
	const before = memoryMb(app.pid);
	const runs: SenderResult[] = [];
	for (let i = 0; i < RUNS; i++)
		runs.push(await send(app, { ...own, seconds: SECONDS, pagesASecond: 25, beaconsASecond: 200, pages: PAGES }));
	const after = memoryMb(app.pid);
	const middle = (figureOf: (run: SenderResult) => number) => median(runs.map(figureOf))!;
	const [p99, beaconP99] = [
		middle(({ pages }) => quantile(pages.latencies, 0.99)),
		middle(({ beacons }) => quantile(beacons.latencies, 0.99))
	];
	const unanswered = runs.reduce((sum, { pages, beacons }) => sum + pages.unanswered + beacons.unanswered, 0);
	const away = (which: (run: SenderResult) => Answers) =>
		middle((run) => which(run).turnedAway.length / (which(run).latencies.length + which(run).turnedAway.length));
	rows.push(
		{
			what: `25 pages and 200 beacons a second, ${SECONDS} s: pages, p50`,
			measured: ms(middle(({ pages }) => quantile(pages.latencies, 0.5)))
		},
		{ what: 'pages, p99', measured: ms(p99), limit: '600 ms', holds: p99 <= 600 },
		{ what: 'beacons, p50', measured: ms(middle(({ beacons }) => quantile(beacons.latencies, 0.5))) },
		{ what: 'beacons, p99', measured: ms(beaconP99), limit: '150 ms', holds: beaconP99 <= 150 },
		{
			what: 'pages, beacons turned away',
			measured: `${percent(away(({ pages }) => pages))}, ${percent(away(({ beacons }) => beacons))}`
		},
		{ what: 'never answered', measured: String(unanswered), limit: '0', holds: unanswered === 0 },
		{
			what: 'other than served or turned away',
			measured: String(runs.reduce((sum, { pages, beacons }) => sum + pages.failed + beacons.failed, 0)),
			limit: '0',
			holds: runs.every(({ pages, beacons }) => pages.failed + beacons.failed === 0)
		},
		{
			what: 'memory before and after',
			measured: `${before.toFixed(0)}, ${after.toFixed(0)} MB`,
			limit: '+20 %',
			holds: after <= before * 1.2
		},
		{
			what: 'processor that the generator took',
			measured: percent(
				middle(({ cpu }) => cpu),
				0
			)
		}
	);
	// Four times as many readers as can be served: who is turned away hears it at once, beacons go first.
	const much = await send(app, {
		...own,
		seconds: Math.min(30, SECONDS),
		pagesASecond: 100,
		beaconsASecond: 200,
		pages: PAGES
	});
	const turnedAwayMs = quantile(much.pages.turnedAway, 0.99);
	const served = quantile(much.pages.latencies, 0.99);
	const first = quantile(much.beacons.latencies, 0.99);
	rows.push(
		{
			what: '100 pages and 200 beacons a second: pages served, turned away',
			measured: `${(much.pages.latencies.length / Math.min(30, SECONDS)).toFixed(0)}, ${(much.pages.turnedAway.length / Math.min(30, SECONDS)).toFixed(0)} a second`
		},
		{ what: 'pages that are served, p99', measured: ms(served), limit: '3,000 ms', holds: served <= 3000 },
		{ what: 'pages turned away hear it, p99', measured: ms(turnedAwayMs), limit: '300 ms', holds: turnedAwayMs <= 300 },
		{ what: 'beacons, p99', measured: ms(first), limit: '300 ms', holds: first <= 300 },
		{
			what: 'never answered',
			measured: String(much.pages.unanswered + much.beacons.unanswered),
			limit: '0',
			holds: much.pages.unanswered + much.beacons.unanswered === 0
		}
	);
} finally {
	await app.end();
}
printTable('overload', rows);
process.exit();
