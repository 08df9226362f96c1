/** Waiting for a stable page, against a server that changes what it says of the page. */
import { expect } from 'chai';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { describeStability } from '$core/wording/stability';
import { Lab } from '../../src/lab/lab';
import { rule, serve, type RunningServer, UNWATCHED } from '../support/world';

const QUICK: Conditions = {
	...BUILT_IN_CONDITIONS[1]!,
	network: { roundTripMs: 10, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 }
};
const PAGE = `<!doctype html><title>Plain</title><p>${'The tide waits for nobody. '.repeat(60)}</p>`;

/** How often each path was asked for. */
const asked = new Map<string, number>();

function site(request: IncomingMessage, response: ServerResponse): void {
	const path = request.url ?? '/';
	const times = (asked.get(path) ?? 0) + 1;
	asked.set(path, times);
	const send = (headers: Record<string, string>, body = PAGE) =>
		response.writeHead(200, { 'content-type': 'text/html', ...headers }).end(body);
	if (path === '/steady') return void send({ etag: '"a"', 'cache-control': 'max-age=60' });
	// An optimiser at work: the first answers pass the cache, then it has filled.
	if (path === '/filling')
		return void send(times < 3 ? { 'x-cache': 'MISS', etag: `"${times}"` } : { 'x-cache': 'HIT', etag: '"z"' });
	if (path === '/restless') return void send({ etag: `"${times}"` });
	if (path === '/growing') return void send({ etag: '"a"' }, PAGE + 'x'.repeat(times * 400));
	response.destroy();
}

describe('waiting for a stable page', function () {
	this.timeout(120_000);
	let server: RunningServer;
	let lab: Lab;
	before(async () => {
		server = await serve(site);
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('*.test', server.port)] });
	});
	after(async () => {
		await lab.close();
		server.close();
	});
	const waitFor = (path: string, withinMs = 12_000) => lab.waitUntilStable(`http://site.test${path}`, QUICK, withinMs);

	it('ends after three fetches alike', async () => {
		const seen = await waitFor('/steady');
		expect(seen).to.include({ stable: true });
		expect(seen.fetches.map((fetch) => [fetch.status, fetch.etag, fetch.cacheControl])).to.deep.equal(
			Array(3).fill([200, '"a"', 'max-age=60'])
		);
		expect(seen.fetches[0]!.bytes).to.equal(Buffer.byteLength(PAGE));
	});

	it('waits until an optimiser has filled its cache', async () => {
		const seen = await waitFor('/filling');
		expect(seen.stable).to.equal(true);
		expect(seen.fetches.map((fetch) => fetch.cache)).to.deep.equal(['miss', 'miss', 'hit', 'hit', 'hit']);
		expect(describeStability(seen)).to.match(/^Stable after 5 fetches in .*, from a cache\.$/);
	});

	it('gives up in time on a page whose validator, or size, never rests, and says which', async () => {
		const restless = await waitFor('/restless', 4000);
		expect(restless.stable).to.equal(false);
		expect(describeStability(restless)).to.match(/: the ETag still changed\. Measured all the same\.$/);
		const growing = await waitFor('/growing', 4000);
		expect(growing.stable).to.equal(false);
		expect(describeStability(growing)).to.match(/the size \(\d+, \d+ bytes\) still changed/);
	});

	it('says what went wrong where there is no answer', async () => {
		const broken = await waitFor('/broken', 2000);
		expect(broken.stable).to.equal(false);
		expect(broken.fetches.every((fetch) => fetch.problem !== null && fetch.status === null)).to.equal(true);
	});

	it('asks for pages without opening them, as the device would', async () => {
		const answers: [string, number | null, string | null][] = [];
		const urls = ['/steady', '/filling?again', '/gone'].map((path) => `http://site.test${path}`);
		await lab.askPages(urls, QUICK, {
			goesOn: () => true,
			answered: (url, answer) => answers.push([new URL(url).pathname, answer.status, answer.problem && 'lost'])
		});
		expect(answers).to.deep.equal([
			['/steady', 200, null],
			['/filling', null, 'lost'],
			['/gone', null, 'lost']
		]);
	});
});
