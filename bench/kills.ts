/**
 * Random kills over running trials: runner, web, Chromium, SIGTERM, SIGSTOP for 20 s. Nothing may be lost, doubled,
 * overlapping, failed for a kill, or left behind. `BENCH_KILLS` sets how many (200).
 */
import Database from 'better-sqlite3';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { profileLabel } from '../src/lab/browser/profiles';
import { seededRandom } from '$core/stats/random';
import { freePort, serve } from '../test/support/world';
import { printTable } from './table';

const KILLS = Number(process.env.BENCH_KILLS || 200);
/** A frozen process is left so for this long. */
const STOPPED_MS = 20_000;
const random = seededRandom(7);
const folder = mkdtempSync(join(tmpdir(), 'zafra-kills-'));
const mark = `zafra-lab-${profileLabel(folder)}-`;
const port = await freePort();
const url = `http://127.0.0.1:${port}`;

/** A small page; each request for it is dated, so that overlapping loads would show. */
const site = await serve((request, response) => {
	const type = request.url?.endsWith('.js') ? 'text/javascript' : 'text/html';
	response
		.writeHead(200, { 'content-type': type })
		.end(
			type === 'text/html'
				? '<!doctype html><html lang="en"><title>Plain</title><h1>Plain</h1><script src="/a.js"></script>'
				: '0'
		);
});

let web: ChildProcess | null = null;
async function startWeb(): Promise<void> {
	const child = spawn(process.execPath, ['scripts/serve.mjs'], {
		// Disturbed loads are made again, which is no doubling: here none counts as disturbed.
		env: {
			...process.env,
			PORT: String(port),
			ZAFRA_DATA: folder,
			ZAFRA_HOST_MAP: `*.test=127.0.0.1:${site.port}`,
			ZAFRA_CALM_SHARE: '1',
			ZAFRA_CALM_BURST: '1',
			ZAFRA_CALM_WAIT: '0'
		},
		stdio: ['ignore', 'ignore', 'inherit', 'ipc']
	});
	web = child;
	await new Promise<void>((ready, failed) => {
		child.once('message', () => ready());
		child.once('exit', (code) => failed(new Error(`web ended at its start (${code})`)));
	});
	child.removeAllListeners('exit');
}

interface Process {
	pid: number;
	parent: number;
	line: string;
}
function processes(): Process[] {
	return readdirSync('/proc')
		.filter((name) => /^\d+$/.test(name))
		.flatMap((name) => {
			try {
				const stat = readFileSync(`/proc/${name}/stat`, 'utf8');
				const [state, parent] = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
				return state === 'Z'
					? []
					: [{ pid: Number(name), parent: Number(parent), line: readFileSync(`/proc/${name}/cmdline`, 'utf8') }];
			} catch {
				return [];
			}
		});
}
const browsers = () => processes().filter((process) => process.line.includes(mark));
const runner = () =>
	processes().find((process) => process.parent === web?.pid && process.line.includes('runner.'))?.pid ?? null;

function signal(pid: number | null | undefined, name: NodeJS.Signals): boolean {
	if (!pid) return false;
	try {
		process.kill(pid, name);
		return true;
	} catch {
		return false;
	}
}

const KINDS = {
	'runner, SIGKILL': async () => signal(runner(), 'SIGKILL'),
	'runner, SIGTERM': async () => signal(runner(), 'SIGTERM'),
	'web, SIGKILL': () => restart('SIGKILL'),
	'web, SIGTERM': () => restart('SIGTERM'),
	'Chromium, SIGKILL': async () =>
		signal(browsers().find((browser) => !browser.line.includes('--type='))?.pid, 'SIGKILL'),
	'a tab, SIGKILL': async () =>
		signal(
			browsers()
				.filter((browser) => browser.line.includes('--type=renderer'))
				.at(-1)?.pid,
			'SIGKILL'
		),
	'runner, SIGSTOP for 20 s': () => freeze([runner()]),
	'Chromium, SIGSTOP for 20 s': () => freeze(browsers().map((browser) => browser.pid))
} satisfies Record<string, () => Promise<boolean>>;

async function restart(name: NodeJS.Signals): Promise<boolean> {
	const gone = new Promise((resolve) => web!.once('exit', resolve));
	signal(web!.pid, name);
	await gone;
	await startWeb();
	return true;
}
async function freeze(pids: (number | null)[]): Promise<boolean> {
	const frozen = pids.filter((pid) => signal(pid, 'SIGSTOP'));
	await pause(STOPPED_MS);
	for (const pid of frozen) signal(pid, 'SIGCONT');
	return frozen.length > 0;
}

async function post(path: string, body: unknown): Promise<{ id: number }> {
	const response = await fetch(url + path, {
		method: 'POST',
		body: JSON.stringify(body),
		headers: { 'content-type': 'application/json' }
	});
	if (!response.ok) throw new Error(await response.text());
	return (await response.json()) as { id: number };
}

const db = () => new Database(join(folder, 'zafra.db'), { readonly: true });
const open = () => read<number>("SELECT count(*) FROM job WHERE status IN ('queued', 'leased')");
function read<Value>(text: string): Value {
	const file = db();
	try {
		return file.prepare(text).pluck().get() as Value;
	} finally {
		file.close();
	}
}

await startWeb();
let planned = 0;
async function addTrial(): Promise<void> {
	const arms = ['a', 'b'].map((name) => ({ name, url: `http://${name}.test/` }));
	const { id } = await post('/api/trials', {
		question: 'Does it hold?',
		kind: 'side-by-side',
		arms,
		conditions: ['desktop'],
		rounds: 24,
		warmups: 0,
		lateLoads: false
	});
	await post(`/api/trials/${id}/start`, {});
	planned += 48;
}

const counts = new Map<string, number>();
const names = Object.keys(KINDS) as (keyof typeof KINDS)[];
let lastLoads = -1;
for (let done = 0; done < KILLS;) {
	if (open() < 6) await addTrial();
	await pause(500 + random() * 6000);
	// The same load is not killed three times over: that is told as a failure, and rightly.
	if (read<number>('SELECT count(*) FROM load') === lastLoads) continue;
	const name = names[Math.floor(random() * names.length)]!;
	if (!(await KINDS[name]())) continue;
	counts.set(name, (counts.get(name) ?? 0) + 1);
	lastLoads = read<number>('SELECT count(*) FROM load');
	done++;
	if (done % 20 === 0) console.error(`${done} of ${KILLS} kills; ${read<number>('SELECT count(*) FROM load')} loads`);
}
while (open() > 0) await pause(1000);

const loads = read<number>('SELECT count(*) FROM load');
const failed = read<number>("SELECT count(*) FROM load WHERE status = 'failed'");
const doubled = read<number>(
	'SELECT count(*) FROM (SELECT 1 FROM load GROUP BY trial_id, arm_id, condition_id, stage, round, warmup HAVING count(*) > 1)'
);
// A load occupies the lab from its start for as long as it took.
const overlapping = read<number>(`SELECT count(*) FROM load a JOIN load b ON a.id < b.id
	AND julianday(b.started_at) < julianday(a.started_at) + (a.lab_ms - 50) / 86400000.0 AND julianday(a.started_at) < julianday(b.started_at) + (b.lab_ms - 50) / 86400000.0`);
const reasons = read<string | null>("SELECT group_concat(DISTINCT reason_code) FROM load WHERE status = 'failed'");
const end = new Promise((resolve) => web!.once('exit', resolve));
signal(web!.pid, 'SIGTERM');
await end;
// Time for a browser that hangs to be given up.
await pause(10_000);
const processesLeft = processes().filter(
	(process) => process.line.includes(mark) || (process.line.includes('runner.') && process.line.includes(folder))
).length;
const foldersLeft = readdirSync(tmpdir()).filter((name) => name.startsWith(mark)).length;

printTable(`Kills: ${[...counts].map(([name, n]) => `${n} × ${name}`).join(', ')}`, [
	{ what: 'loads planned', measured: String(planned), limit: '', holds: true },
	{ what: 'lost', measured: String(planned - loads + doubled), limit: '0', holds: loads === planned },
	{ what: 'doubled', measured: String(doubled), limit: '0', holds: doubled === 0 },
	{ what: 'overlapping', measured: String(overlapping), limit: '0', holds: overlapping === 0 },
	{
		what: `failed for a kill${reasons ? ` (${reasons})` : ''}`,
		measured: String(failed),
		limit: '0',
		holds: failed === 0
	},
	{ what: 'processes left', measured: String(processesLeft), limit: '0', holds: processesLeft === 0 },
	{ what: 'profile folders left', measured: String(foldersLeft), limit: '0', holds: foldersLeft === 0 }
]);
site.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
