import { expect } from 'chai';
import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { freePort, startDemoWeb, until, type RunningWorld } from '../support/world';

interface LockedPackage {
	dev?: boolean;
	link?: boolean;
}

/** What `npm ci --omit=dev` puts in place, as links to what is installed. */
function linkProductionPackages(folder: string): void {
	const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, LockedPackage> };
	for (const [path, { dev }] of Object.entries(lock.packages)) {
		const isTop = /^node_modules\/(@[^/]+\/)?[^/]+$/.test(path);
		if (!isTop || dev || !existsSync(path)) continue;
		mkdirSync(dirname(join(folder, path)), { recursive: true });
		symlinkSync(resolve(path), join(folder, path));
	}
}

describe('a copy for production', function () {
	this.timeout(180_000);
	const folder = mkdtempSync(join(tmpdir(), 'zafra-production-'));
	let web: RunningWorld;
	let app: ChildProcess;
	let url: string;
	let words = '';
	before(async () => {
		web = await startDemoWeb();
		for (const path of ['build', 'scripts', 'package.json', 'package-lock.json'])
			cpSync(path, join(folder, path), { recursive: true });
		linkProductionPackages(folder);
		const port = await freePort();
		url = `http://127.0.0.1:${port}`;
		app = spawn(process.execPath, ['scripts/serve.mjs'], {
			cwd: folder,
			env: {
				...process.env,
				// Packages see only what production has, too.
				NODE_OPTIONS: '--preserve-symlinks',
				PORT: String(port),
				ZAFRA_DATA: join(folder, 'data'),
				ZAFRA_HOST_MAP: `*.test=127.0.0.1:${web.port}/${web.tlsPort}`,
				ZAFRA_TRUSTED_KEYS: web.keyHash,
				ZAFRA_CALM_WAIT: '0',
				ZAFRA_WARM: 'off'
			},
			stdio: ['ignore', 'pipe', 'pipe', 'ipc']
		});
		for (const stream of [app.stdout!, app.stderr!]) stream.on('data', (chunk: Buffer) => (words += chunk.toString()));
		await new Promise<void>((ready, failed) => {
			app.once('message', () => ready());
			app.once('exit', () => failed(new Error(words)));
		});
	});
	after(async () => {
		if (app && app.exitCode === null) {
			const gone = new Promise((resolve) => app.once('exit', resolve));
			app.kill('SIGTERM');
			await gone;
		}
		web.close();
		rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
	});

	const ask = async (path: string, body?: unknown) => {
		const headers = { 'content-type': 'application/json' };
		const sent = body === undefined ? {} : { method: 'POST', headers, body: JSON.stringify(body) };
		const response = await fetch(url + path, sent);
		return { status: response.status, body: (await response.json()) as any };
	};

	it('has no sources and nothing to build with', () => {
		for (const gone of ['src', 'node_modules/tsx', 'node_modules/esbuild', 'node_modules/vite', 'node_modules/svelte'])
			expect(existsSync(join(folder, gone)), gone).to.equal(false);
	});

	it('serves pages and schemas', async () => {
		expect(await (await fetch(url)).text()).to.include('Desk');
		expect((await ask('/api/schemas/load-record')).body).to.have.property('$schema');
	});

	it('loads a page: its lab, its line and its watch over the machine all run', async () => {
		const { body, status } = await ask('/api/loads', { url: 'https://skerry-line.test/', conditions: 'desktop' });
		expect(status, JSON.stringify(body)).to.equal(202);
		const single = async () => (await ask(`/api/singles/${body.id}`)).body;
		await until(async () => (await single()).loadId !== null, 120_000, `a load (${words})`);
		const record = (await ask(`/api/loads/${(await single()).loadId}`)).body;
		expect(record.status, JSON.stringify(record.failure)).to.equal('ok');
		expect(record.figures.lcp).to.be.above(0);
		expect(record.page.elements).to.be.above(10);
		expect(words).not.to.match(/error/i);
	});

	it('does its heavy work in a thread', async () => {
		const har = { log: { version: '1.2', creator: { name: 'x', version: '1' }, pages: [], entries: [] } };
		const { status, body } = await ask('/api/loads/har', har);
		// A refusal in words comes out of that thread too.
		expect(status, JSON.stringify(body)).to.be.within(400, 422);
		expect(body.error.message).to.match(/HAR/);
	});
});
