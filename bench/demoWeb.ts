/** The simulated web as a server: start, memory, and cached pages per second. */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../test/support/world';
import { printTable } from './table';

const folder = mkdtempSync(join(tmpdir(), 'zafra-bench-'));
const port = await freePort();

async function start() {
	const begun = performance.now();
	const child = spawn(process.execPath, ['--import', 'tsx', 'demo-web/main.ts'], {
		env: { ...process.env, ZAFRA_DATA: folder, ZAFRA_DEMO_PORT: String(port) },
		stdio: ['ignore', 'ignore', 'inherit', 'ipc']
	});
	await new Promise((ready) => child.once('message', ready));
	return { child, tookMs: performance.now() - begun };
}

const loader = performance.now();
await new Promise((done) => spawn(process.execPath, ['--import', 'tsx', '-e', '0']).once('exit', done));
const bareMs = performance.now() - loader;
const first = await start();
first.child.kill();
await new Promise((done) => first.child.once('exit', done));
const later = await start();

const agent = new Agent({ keepAlive: true, maxSockets: 16 });
const get = (path: string, method = 'GET', body = '') =>
	new Promise<number>((resolve, reject) => {
		const host = path.startsWith('/sites') ? 'switchboard.test' : 'puffin-ferries.test';
		const sent = request(
			{ agent, host: '127.0.0.1', port, path, method, headers: { host, 'accept-encoding': 'gzip' } },
			(response) => {
				response.resume().on('end', () => resolve(response.statusCode!));
			}
		);
		sent.on('error', reject).end(body);
	});
await get('/sites/puffin-ferries.test/state', 'PUT', JSON.stringify({ https: false, hosting: 'dedicated' }));
await get('/timetable');
const TOTAL = 6000;
let sent = 0;
let good = 0;
const from = performance.now();
await Promise.all(
	Array.from({ length: 16 }, async () => {
		while (sent++ < TOTAL) if ((await get('/timetable')) === 200) good++;
	})
);
const perSecond = good / ((performance.now() - from) / 1000);
const memory = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${later.child.pid}/status`, 'utf8'))![1]) / 1000;
agent.destroy();
later.child.kill();
rmSync(folder, { recursive: true, force: true });
printTable('Simulated web', [
	{
		what: 'first start, all pictures drawn',
		measured: `${(first.tookMs / 1000).toFixed(1)} s`,
		limit: 'under 20 s',
		holds: first.tookMs < 20_000
	},
	{
		what: 'later start, beyond starting Node and its loader',
		measured: `${((later.tookMs - bareMs) / 1000).toFixed(2)} s (of ${(later.tookMs / 1000).toFixed(2)} s)`,
		limit: 'under 1 s',
		holds: later.tookMs - bareMs < 1000
	},
	{
		what: `cached pages, 16 at once (each waits about 12 ms by design)`,
		measured: `${perSecond.toFixed(0)}/s`,
		limit: 'at least 500/s',
		holds: perSecond >= 500
	},
	{ what: 'memory after that', measured: `${memory.toFixed(0)} MB`, limit: 'under 300 MB', holds: memory < 300 }
]);
process.exit(process.exitCode ?? 0);
