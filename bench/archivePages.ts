/**
 * The app’s pages over 500 trials and 20,000 loads, and what an idle app costs. Each page is asked for 25 times; the
 * first five are not counted.
 */
import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { median } from '$core/stats/summary';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { snapshot } from '../src/lib/server/desk/labNow';
import { startApp } from '../test/support/app';
import { childrenOf } from '../test/support/processes';
import { fillArchive, fillLoads } from './archive';
import { printTable, type Row } from './table';

const TRIALS = 500;
const ROUNDS = 18;
const LONE = 2000;
const PAGE_MS = 100;
const IDLE_S = 60;
/** Both processes clear up after their work for a while. */
const REST_MS = 150_000;
/** Of one core, web and lab together. */
const IDLE_SHARE = 0.01;

let newest = 0;
const app = await startApp({
	prepare(folder) {
		const db = openDatabase(folder);
		newest = fillArchive(db, TRIALS, ROUNDS);
		fillLoads(db, LONE);
		db.close();
	}
});

async function servedMs(path: string): Promise<number> {
	const times: number[] = [];
	for (let i = 0; i < 25; i++) {
		const from = performance.now();
		const answer = await fetch(app.url + path);
		await answer.text();
		if (!answer.ok) throw new Error(`${path} answered ${answer.status}.`);
		if (i >= 5) times.push(performance.now() - from);
	}
	return median(times);
}

const PAGES: Record<string, string> = {
	Desk: '/',
	Trials: '/trials',
	'Trials that are slower': '/trials?verdict=worse',
	'Trials by words': '/trials?q=page+77',
	Loads: '/loads',
	'a sheet': `/trials/${newest}`,
	'GET /api/trials/:id': `/api/trials/${newest}`,
	'GET /api/health': '/api/health'
};
const rows: Row[] = [];
// What the lab catches up with after its start is no part of serving pages, nor of being idle.
const watched = openDatabase(app.folder);
const open = watched.prepare("SELECT count(*) FROM job WHERE status IN ('queued', 'leased')").pluck();
while ((open.get() as number) > 0) await pause(1000);
watched.close();
for (const [what, path] of Object.entries(PAGES)) {
	const ms = await servedMs(path);
	rows.push({ what, measured: `${ms.toFixed(0)} ms`, limit: `at most ${PAGE_MS} ms`, holds: ms <= PAGE_MS });
}

const db = openDatabase(app.folder);
const looks = Array.from({ length: 30 }, () => {
	const from = performance.now();
	snapshot(db);
	return performance.now() - from;
});
db.close();
const look = median(looks);
rows.push({ what: 'one look for events', measured: `${look.toFixed(2)} ms`, limit: 'at most 5 ms', holds: look <= 5 });

/** Processor time of a process so far, s (proc(5): utime and stime in ticks of 10 ms). */
function cpuSeconds(pid: number): number {
	const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
	return (Number(fields[11]) + Number(fields[12])) / 100;
}
const listening = new AbortController();
const reader = (await fetch(`${app.url}/api/events`, { signal: listening.signal })).body!.getReader();
const listen = async () => {
	while (!(await reader.read()).done);
};
void listen().catch(() => undefined);
await pause(REST_MS);
const pids = [app.pid, ...childrenOf(app.pid)];
const cpu = () => pids.reduce((sum, pid) => sum + cpuSeconds(pid), 0);
const from = cpu();
await pause(IDLE_S * 1000);
const share = (cpu() - from) / IDLE_S;
listening.abort();
rows.push({
	what: `idle web and lab, a page open, ${IDLE_S} s`,
	measured: `${(share * 100).toFixed(2)} % of a core`,
	limit: 'under 1 %',
	holds: share < IDLE_SHARE
});
await app.end();
printTable(`Pages over ${TRIALS} trials with ${TRIALS * ROUNDS * 2} loads, and ${LONE} loads outside trials`, rows);
