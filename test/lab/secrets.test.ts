import { expect } from 'chai';
import { readdirSync, readFileSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { harOf } from '$core/formats/har';
import {
	BUILT_IN_CONDITIONS,
	lacksSecrets,
	NOT_SHOWN,
	withStoredSecrets,
	type Conditions
} from '$core/load/conditions/conditions';
import { Lab } from '../../src/lab/lab';
import { makeProfile, profileLabel, sweepProfiles } from '../../src/lab/browser/profiles';
import { rule, serve, type RunningServer, UNWATCHED } from '../support/world';

const DESKTOP = BUILT_IN_CONDITIONS[1]!;
const SECRET: Conditions = {
	...DESKTOP,
	capMs: 8000,
	quietMs: 500,
	network: { ...DESKTOP.network, roundTripMs: 4 },
	headers: [
		{ name: 'X-Preview', value: 'preview-value' },
		{ name: 'X-Files', value: 'files-value', hosts: ['files.named.test'] }
	],
	cookies: [{ name: 'session', value: 'cookie-value' }],
	authentication: { username: 'ana', password: 'pass-value' }
};

describe('secrets of conditions', function () {
	this.timeout(60_000);
	const seen: { host: string; path: string; headers: Record<string, string | string[] | undefined> }[] = [];
	let server: RunningServer;
	let lab: Lab;
	before(async () => {
		server = await serve((request, response) => {
			const host = request.headers.host!.replace(/:\d+$/, '');
			const path = request.url!;
			seen.push({ host, path, headers: request.headers });
			const go = (location: string) => void response.writeHead(302, { location }).end();
			if (host === 'www.agency.test' && path === '/') {
				if (!request.headers.authorization)
					return void response.writeHead(401, { 'www-authenticate': 'Basic realm="x"' }).end();
				return void response
					.writeHead(200, { 'content-type': 'text/html' })
					.end(
						'<!doctype html><title>x</title><h1>Words</h1><img src="/leaves.svg"><img src="http://files.agency.test/own.svg"><img src="http://files.named.test/named.svg"><img src="http://tracker.test/pixel.svg"><img src="http://agency.test.evil.test/like.svg"><script>fetch("http://tracker.test/asks")</script>'
					);
			}
			if (path === '/leaves.svg') return go('http://tracker.test/after-redirect.svg');
			if (path === '/away') return go('http://tracker.test/landed');
			if (path === '/asks')
				return void response
					.writeHead(401, { 'www-authenticate': 'Basic realm="t"', 'access-control-allow-origin': '*' })
					.end();
			if (path === '/landed')
				return void response
					.writeHead(200, { 'content-type': 'text/html' })
					.end('<!doctype html><title>t</title><h1>Elsewhere</h1>');
			response
				.writeHead(200, { 'content-type': 'image/svg+xml' })
				.end('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
		});
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('*.agency.test', server.port), rule('*.test', server.port)] });
	});
	after(async () => {
		await lab.close();
		server.close();
	});

	it('go to the page’s own site and the hosts named beside them, not over a redirect, and to nobody else', async () => {
		const { record } = await lab.measure({ url: 'http://www.agency.test/', conditions: SECRET, steps: [] });
		expect(record.failure?.message).to.equal(undefined);
		const of = (path: string) => seen.filter((item) => item.path === path).at(-1)!.headers;
		expect(of('/')).to.include({
			'x-preview': 'preview-value',
			'x-files': 'files-value',
			cookie: 'session=cookie-value'
		});
		expect(of('/leaves.svg')).to.include({ 'x-preview': 'preview-value' });
		expect(of('/own.svg')).to.include({ 'x-preview': 'preview-value', 'x-files': 'files-value' });
		expect(of('/named.svg')).to.include({ 'x-files': 'files-value' }).and.not.have.property('x-preview');
		for (const path of ['/after-redirect.svg', '/pixel.svg', '/like.svg', '/asks']) {
			expect(of(path), path).to.not.have.any.keys('x-preview', 'x-files', 'cookie', 'authorization');
		}
		await lab.measure({
			url: 'http://www.agency.test/away',
			conditions: { ...SECRET, authentication: null },
			steps: []
		});
		expect(of('/away')).to.include({ 'x-preview': 'preview-value' });
		expect(of('/landed')).to.not.have.any.keys('x-preview', 'x-files', 'cookie', 'authorization');
		const out = JSON.stringify(record) + JSON.stringify(harOf(record, 'x'));
		expect(out).not.to.match(/preview-value|files-value|cookie-value|pass-value/);
		expect(record.conditions!.headers[0]).to.include({ name: 'X-Preview', value: NOT_SHOWN });
	});

	it('may come from the site, for the load alone: the record says that there was one', async () => {
		const conditions = { ...SECRET, headers: [], cookies: [], authentication: null };
		const order = { url: 'http://www.agency.test/', conditions, steps: [] };
		expect((await lab.measure(order)).record.failure?.code).to.equal('http-status');
		const { record } = await lab.measure({ ...order, access: { username: 'ana', password: 'pass-value' } });
		expect(record.status, record.failure?.message).to.equal('ok');
		expect(JSON.stringify(record)).not.to.include('pass-value');
	});

	it('stay out of the record of a load that failed', async () => {
		const { record } = await lab.measure({ url: 'http://nowhere.invalid/', conditions: SECRET, steps: [] });
		expect(record.status).to.equal('failed');
		expect(JSON.stringify(record)).not.to.match(/preview-value|files-value|cookie-value|pass-value/);
	});

	it('are taken from what is stored where they were not written anew', () => {
		const blotted = {
			...SECRET,
			headers: SECRET.headers.map((header) => ({ ...header, value: NOT_SHOWN })),
			authentication: { username: 'ben', password: NOT_SHOWN }
		};
		expect(withStoredSecrets(blotted, SECRET)).to.deep.equal({
			...SECRET,
			authentication: { username: 'ben', password: 'pass-value' }
		});
		expect(() => withStoredSecrets({ ...blotted, headers: [{ name: 'X-New', value: NOT_SHOWN }] }, SECRET)).to.throw(
			'X-New'
		);
		expect(() => withStoredSecrets(blotted, null)).to.throw(/anew/);
		expect([lacksSecrets(SECRET), lacksSecrets(blotted)]).to.deep.equal([false, true]);
	});
});

describe('a browser that somebody ends', function () {
	this.timeout(60_000);
	const label = profileLabel('/a/test/folder');
	let server: RunningServer;
	let lab: Lab;
	const folders = () => readdirSync(tmpdir()).filter((name) => name.startsWith(`zafra-lab-${label}-`));
	before(async () => {
		server = await serve((request, response) => {
			if (request.url === '/never') return void isUnderWay?.();
			response
				.writeHead(200, { 'content-type': 'text/html' })
				.end('<!doctype html><title>x</title><h1>Words</h1><img src="/never">');
		});
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('slow.test', server.port)], profileLabel: label });
	});
	after(async () => {
		await lab.close();
		server.close();
		expect(folders()).to.deep.equal([]);
	});

	const pids = (pattern: RegExp) =>
		readdirSync('/proc')
			.filter((name) => /^\d+$/.test(name))
			.map(Number)
			.filter((pid) => {
				try {
					const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
					return line.includes(`zafra-lab-${label}-`) && pattern.test(line);
				} catch {
					return false;
				}
			});
	const CONDITIONS = { ...DESKTOP, capMs: 9000 };
	/** However long a browser takes to start: once the page asks for what never comes, its load is under way. */
	let isUnderWay: (() => void) | null = null;
	async function whileLoading(act: () => void): Promise<string> {
		const underWay = new Promise<void>((next) => (isUnderWay = next));
		const loading = lab.measure({ url: 'http://slow.test/', conditions: CONDITIONS, steps: [] });
		await underWay;
		act();
		const { record } = await loading;
		return record.failure!.code;
	}

	it('is told apart from a page that crashes its tab, and from one that does not come to rest', async () => {
		const killTabs = () => pids(/--type=renderer/).forEach((pid) => process.kill(pid, 'SIGKILL'));
		expect(await whileLoading(killTabs)).to.equal('browser-killed');
		const killBrowser = () =>
			pids(/^(?!.*--type=).*--remote-debugging-pipe/s).forEach((pid) => process.kill(pid, 'SIGKILL'));
		expect(await whileLoading(killBrowser)).to.equal('browser-killed');
		expect(await whileLoading(() => undefined)).to.equal('time-out');
	});

	it('or stops for a while gives no figures: what stood still measures nothing', async () => {
		const stop = () => {
			const all = pids(/./);
			all.forEach((pid) => process.kill(pid, 'SIGSTOP'));
			setTimeout(() => all.forEach((pid) => existsSync(`/proc/${pid}`) && process.kill(pid, 'SIGCONT')), 1500);
		};
		expect(await whileLoading(stop)).to.equal('browser-killed');
	});

	it('leaves nothing that the next lab does not sweep', async () => {
		const left = makeProfile(label, null);
		expect(folders()).to.include(left.split('/').at(-1));
		await lab.close();
		expect(sweepProfiles(label)).to.be.at.least(1);
		expect(folders()).to.deep.equal([]);
		const other = mkdtempSync(join(tmpdir(), 'zafra-lab-elsewhere-'));
		sweepProfiles(label);
		expect(existsSync(other)).to.equal(true);
		rmSync(other, { recursive: true });
	});
});
