/** Starts web (which starts the runner) and the simulated web together, and ends them together. */
import { spawn, type ChildProcess } from 'node:child_process';
import { join, resolve } from 'node:path';
import { weeksOfFolder } from '../demo-web/calendar';

const port = process.env.PORT || '4170';
const demoPort = process.env.ZAFRA_DEMO_PORT || '4180';
const data = resolve(process.env.ZAFRA_DATA || 'data');
const environment = {
	...process.env,
	PORT: port,
	ZAFRA_DEMO: 'on',
	ZAFRA_DEMO_PORT: demoPort,
	ZAFRA_DATA: data,
	ZAFRA_DEMO_WEEKS: String(weeksOfFolder(join(data, 'demo-web'))),
	ZAFRA_DEMO_VISITS: join(data, 'demo-web', 'visits.ndjson.gz')
};

const children: ChildProcess[] = [];
let ending = false;

function end(code: number): void {
	if (ending) return;
	ending = true;
	for (const child of children) child.kill('SIGTERM');
	// Whoever does not end by itself loses its channel when this process goes, and ends then.
	setTimeout(() => process.exit(code), 1500).unref();
	void Promise.all(children.map((child) => child.exitCode ?? new Promise((done) => child.once('exit', done)))).then(
		() => process.exit(code)
	);
}

function start(name: string, args: string[], more: NodeJS.ProcessEnv = {}): ChildProcess {
	const child = spawn(process.execPath, args, {
		env: { ...environment, ...more },
		stdio: ['ignore', 'inherit', 'inherit', 'ipc']
	});
	children.push(child);
	child.on('exit', (code) => {
		// Ctrl-C reaches the children too, sometimes before it reaches us: that is no accident to report.
		setTimeout(() => {
			if (!ending) console.error(`${name} has ended, so the demonstration ends too.`);
			end(code ?? 1);
		}, 150);
	});
	return child;
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => end(0));

// Nobody is left to press Ctrl-C when the parent dies.
const parent = process.ppid;
setInterval(() => process.ppid !== parent && end(0), 1000).unref();

const demoWeb = start('The simulated web', ['--import', 'tsx', 'demo-web/main.ts']);
interface Ready {
	keyHash: string;
	tlsPort: number;
	resolverPort: number;
	hostTimes: string;
}
demoWeb.once('message', ({ keyHash, tlsPort, resolverPort, hostTimes }: Ready) => {
	const joined = (...parts: (string | undefined)[]) => parts.filter(Boolean).join(',');
	const web = start('Zafra', ['scripts/serve.mjs'], {
		// A map that was given is kept and comes first: its rules win.
		ZAFRA_HOST_MAP: joined(process.env.ZAFRA_HOST_MAP, `*.test=127.0.0.1:${demoPort}/${tlsPort}`),
		ZAFRA_HOST_TIMES: joined(process.env.ZAFRA_HOST_TIMES, hostTimes),
		ZAFRA_TRUSTED_KEYS: joined(process.env.ZAFRA_TRUSTED_KEYS, keyHash),
		ZAFRA_PANEL: process.env.ZAFRA_PANEL || 'https://field-panel.test/readings',
		ZAFRA_PANEL_KEY: process.env.ZAFRA_PANEL_KEY || 'demo',
		ZAFRA_RESOLVERS: process.env.ZAFRA_RESOLVERS || `the simulated web=127.0.0.1:${resolverPort}`,
		ZAFRA_RDAP: process.env.ZAFRA_RDAP || 'https://address-book.test/rdap',
		ZAFRA_HELPERS: String(demoWeb.pid ?? '')
	});
	web.once('message', () => console.log('The demonstration is ready. Stop it with Ctrl-C.'));
});
