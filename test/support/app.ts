/** The built app for tests: its own data folder, its own ports, its own simulated web. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { weeksUntil } from '../../demo-web/calendar';
import { writeHistory } from '../../demo-web/visitors/history';
import { freePort, startDemoWeb, type RunningWorld } from './world';

export interface TestApp {
	url: string;
	web: RunningWorld;
	folder: string;
	/** Of the web process. */
	readonly pid: number;
	/** What the process has said since its last start. */
	words(): string;
	/** Send JSON, get status and body. */
	api(
		method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
		path: string,
		body?: unknown
	): Promise<{ status: number; body: any }>;
	stop(signal?: NodeJS.Signals): Promise<void>;
	/** Start again on the same data. */
	restart(): Promise<void>;
	end(): Promise<void>;
}

const DAY_MS = 86_400_000;
const SHIFTED_CLOCK = pathToFileURL('test/support/shiftedClock.mjs').href;

/** Beside its own test no machine is calm: tests of the rules say so themselves. */
const UNWATCHED = {
	ZAFRA_CALM_SHARE: '1',
	ZAFRA_CALM_BURST: '1',
	ZAFRA_CALM_WAIT: '0',
	ZAFRA_CALM_REST: '0',
	ZAFRA_WARM: 'off'
};

export interface AppOptions {
	demo?: boolean;
	environment?: NodeJS.ProcessEnv;
	/** So many days later than it is. */
	days?: number;
	/** Puts something into the data folder before the first start. */
	prepare?: (folder: string) => void | Promise<void>;
}

export async function startApp({
	demo = false,
	environment = {},
	days = 0,
	prepare
}: AppOptions = {}): Promise<TestApp> {
	const folder = mkdtempSync(join(tmpdir(), 'zafra-test-'));
	await prepare?.(folder);
	const port = await freePort();
	const url = `http://127.0.0.1:${port}`;
	const weeks = weeksUntil(Date.now() + days * DAY_MS);
	const shift = days ? { NODE_OPTIONS: `--import ${SHIFTED_CLOCK}`, ZAFRA_CLOCK_DAYS: String(days) } : {};
	const web = await startDemoWeb(url, weeks);
	const visits = join(tmpdir(), `zafra-test-visits-${new Date().toISOString().slice(0, 13)}-${days}.ndjson.gz`);
	if (demo) writeHistory(visits, weeks);
	let child: ChildProcess | null = null;
	let words = '';

	async function start(): Promise<void> {
		words = '';
		child = spawn(process.execPath, ['scripts/serve.mjs'], {
			env: {
				...process.env,
				PORT: String(port),
				ZAFRA_DATA: folder,
				ZAFRA_HOST_MAP: `*.test=127.0.0.1:${web.port}/${web.tlsPort}`,
				ZAFRA_TRUSTED_KEYS: web.keyHash,
				ZAFRA_DEMO: demo ? 'on' : 'off',
				ZAFRA_DEMO_WEEKS: String(weeks),
				ZAFRA_DEMO_VISITS: visits,
				ZAFRA_PANEL: 'https://field-panel.test/readings',
				ZAFRA_PANEL_KEY: 'demo',
				...UNWATCHED,
				...shift,
				...environment
			},
			stdio: ['ignore', 'pipe', 'pipe', 'ipc']
		});
		const take = (chunk: Buffer) => (words += chunk.toString());
		child.stdout!.on('data', take);
		child.stderr!.on('data', take);
		const ready = new Promise<void>((resolve, reject) => {
			child!.once('message', () => resolve());
			child!.once('exit', () => reject(new Error(`The app ended: ${words}`)));
		});
		await ready;
	}

	async function stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
		const ending = child;
		child = null;
		if (!ending || ending.exitCode !== null || ending.signalCode !== null) return;
		const gone = new Promise((resolve) => ending.once('exit', resolve));
		ending.removeAllListeners('message');
		ending.kill(signal);
		await gone;
	}

	await start();
	return {
		url,
		web,
		folder,
		get pid() {
			return child?.pid ?? 0;
		},
		words: () => words,
		async api(method, path, body) {
			const response = await fetch(url + path, {
				method,
				// A kept connection may be closed by the server just as a starved test uses it again.
				headers: { connection: 'close', ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
				...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) })
			});
			const text = await response.text();
			return { status: response.status, body: /^[{[]/.test(text) ? JSON.parse(text) : text };
		},
		stop,
		restart: start,
		async end() {
			await stop();
			web.close();
			rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
		}
	};
}
