/** Pages changed on their way: what reaches the browser, and that the untouched page is the same through the server. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { Rewrites } from '$core/rewrites/rewrite';
import { Lab } from '../../src/lab/lab';
import { rule, serve, startDemoWeb, UNWATCHED } from '../support/world';

const QUICK: Conditions = {
	...BUILT_IN_CONDITIONS[1]!,
	quietMs: 500,
	network: { roundTripMs: 20, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 }
};
const SITE = 'https://skerry-line.test/';

describe('the rewriting server', function () {
	this.timeout(180_000);
	let world: Awaited<ReturnType<typeof startDemoWeb>>;
	let lab: Lab;
	const folder = mkdtempSync(join(tmpdir(), 'zafra-twins-'));
	before(async () => {
		world = await startDemoWeb();
		world.store.change('skerry-line.test', { chat: 'normal', compression: false }, 'published');
		lab = new Lab({ calm: UNWATCHED, hostMap: world.rules, trustedKeys: [world.keyHash], twinsFolder: folder });
	});
	after(async () => {
		await lab.close();
		world.close();
		rmSync(folder, { recursive: true, force: true });
	});
	const measure = async (rewrites: unknown[] | null, twin: string | null = null) => {
		const { record } = await lab.measure({
			...{ url: SITE, conditions: QUICK, steps: [], bodies: true },
			...(rewrites ? { rewriting: { rewrites: v.parse(Rewrites, rewrites), twin } } : {})
		});
		expect(record.failure).to.equal(null);
		return record;
	};
	const ofHost = (record: Awaited<ReturnType<typeof measure>>, host: string) =>
		record.requests.filter((request) => request.host === host);

	it('passes an untouched page on: the same requests, bytes, protocols and codings', async () => {
		const direct = await measure(null);
		const through = await measure([]);
		const told = ({ requests }: typeof direct) =>
			requests
				.filter(({ during }) => during === 'load')
				.map(({ url, status, protocol, decodedBytes, body }) =>
					[url.replace(/[?&](t|at|n)=[\d.]+/g, ''), status, protocol, decodedBytes, body?.hash].join(' ')
				)
				.sort();
		expect(told(through)).to.deep.equal(told(direct));
		expect(through.rewriting).to.include({ twin: false, fromTwin: 0 });
		expect(through.rewriting!.requests).to.be.at.least(direct.requests.length - 2);
		expect(direct.rewriting).to.equal(undefined);
		const wire = ({ figures }: typeof direct) => figures.wire!;
		expect(Math.abs(wire(through) - wire(direct)) / wire(direct)).to.be.below(0.02);
	});

	it('takes a third party out, elements and all', async () => {
		const chat = ofHost(await measure([]), 'parlour-bell.test');
		expect(chat.length).to.be.above(0);
		const record = await measure([{ do: 'block', owner: 'parlour-bell.test' }]);
		expect(ofHost(record, 'parlour-bell.test').filter(({ status }) => status !== 204)).to.deep.equal([]);
		expect(record.rewriting!.done[0]).to.deep.include({ words: 'parlour-bell.test taken out' });
		expect(record.rewriting!.done[0]!.times).to.be.above(0);
		expect(record.page!.consoleErrors).to.deep.equal([]);
	});

	it('holds a third party until the first input: nothing of it while the page settles', async () => {
		const record = await measure([{ do: 'delay', owner: 'parlour-bell.test', until: 'input' }]);
		expect(ofHost(record, 'parlour-bell.test')).to.deep.equal([]);
		const { record: nudged } = await lab.measure({
			...{ url: SITE, conditions: { ...QUICK, input: 'nudge' }, steps: [] },
			rewriting: {
				rewrites: v.parse(Rewrites, [{ do: 'delay', owner: 'parlour-bell.test', until: 'input' }]),
				twin: null
			}
		});
		expect(ofHost(nudged, 'parlour-bell.test').length).to.be.above(0);
		expect(ofHost(nudged, 'parlour-bell.test').every(({ during }) => during === 'nudge')).to.equal(true);
	});

	it('compresses text, scales a picture, sets headers and attributes', async () => {
		const before = await measure([]);
		const picture = before.requests
			.filter(({ type }) => type === 'image')
			.sort((a, b) => b.wireBytes! - a.wireBytes!)[0]!;
		const record = await measure([
			{ do: 'compress' },
			{ do: 'replace', address: picture.url, with: 'picture', width: 400, height: 180, format: 'webp', quality: 70 },
			{ do: 'header', address: picture.url, name: 'cache-control', value: 'max-age=31536000, immutable' },
			{ do: 'attribute', selector: 'html', name: 'data-tried', value: 'yes' }
		]);
		const document = record.requests.find(({ type }) => type === 'document')!;
		const headers = (request: typeof document) =>
			new Map(request.responseHeaders.map(([name, value]) => [name.toLowerCase(), value]));
		expect(headers(document).get('content-encoding')).to.equal('br');
		expect(document.wireBytes!).to.be.below(before.requests.find(({ type }) => type === 'document')!.wireBytes!);
		const scaled = record.requests.find(({ url }) => url === picture.url)!;
		expect(headers(scaled).get('content-type')).to.equal('image/webp');
		expect(headers(scaled).get('cache-control')).to.equal('max-age=31536000, immutable');
		expect(scaled.wireBytes!).to.be.below(picture.wireBytes! / 2);
		expect(record.page!.images.find(({ url }) => url === picture.url)).to.deep.include({
			naturalWidth: 400,
			naturalHeight: 180
		});
		for (const { times, words } of record.rewriting!.done) expect(times, words).to.be.above(0);
	});

	it('delays by a time, and waits no less', async () => {
		const address = 'https://stilewatch.test/count.js*';
		const { requests, rewriting } = await measure([{ do: 'delay', address, ms: 700 }]);
		expect(requests.find(({ url }) => /count\.js/.test(url))!.timing.wait!).to.be.at.least(700);
		expect(rewriting!.done[0]).to.deep.equal({ words: 'count.js* 700\u00a0ms later', times: 1 });
	});

	it('answers a twin as the page had come, with the waiting times that were measured', async () => {
		const first = await measure([], 'a');
		expect(first.rewriting).to.include({ twin: true, fromTwin: 0 });
		world.store.change('skerry-line.test', { chat: 'absent' }, 'published');
		const second = await measure([], 'a');
		world.store.change('skerry-line.test', { chat: 'normal' }, 'published');
		expect(second.rewriting!.fromTwin).to.be.above(5);
		// Switched off at the host meanwhile, it is still there as it had come.
		expect(ofHost(second, 'parlour-bell.test').length).to.be.above(0);
		const wait = ({ requests }: typeof first) => requests.find(({ type }) => type === 'document')!.timing.wait!;
		// The host's own time is waited for again; how much longer a busy machine takes says nothing.
		expect(wait(second)).to.be.at.least(wait(first) * 0.8);
	});

	it('serves another host from the page’s own without a word of what is for the page alone', async () => {
		const asked: Record<string, Record<string, unknown>> = {};
		const html = '<!doctype html><title>x</title><p>words</p><script src="http://party.test/a.js"></script>';
		const server = await serve(({ url, headers }, response) => {
			asked[`${headers.host}${url}`] = headers;
			const isPage = headers.host === 'page.test' && url === '/';
			response.writeHead(200, { 'content-type': isPage ? 'text/html' : 'text/javascript', 'set-cookie': 'theirs=1' });
			response.end(isPage ? html : 'document.title = "came"');
		});
		const own = new Lab({
			calm: UNWATCHED,
			hostMap: ['page.test', 'party.test'].map((host) => rule(host, server.port))
		});
		const conditions: Conditions = {
			...QUICK,
			headers: [{ name: 'x-secret', value: 'for the page' }],
			cookies: [{ name: 'session', value: 'for the page' }]
		};
		const measureWith = (rewrites: unknown[]) =>
			own.measure({
				...{ url: 'http://page.test/', conditions, steps: [] },
				rewriting: { rewrites: v.parse(Rewrites, rewrites), twin: null }
			});
		const { record } = await measureWith([{ do: 'own-host', host: 'party.test' }]);
		expect(record.page!.title).to.equal('came');
		expect(asked['page.test/']).to.include({ 'x-secret': 'for the page' });
		expect(JSON.stringify(asked['party.test/a.js'])).to.not.contain('for the page');
		const script = record.requests.find(({ url }) => /a\.js/.test(url))!;
		expect(new URL(script.url).host).to.equal('page.test');
		expect(JSON.stringify(script.responseHeaders)).to.not.contain('theirs');
		await own.close();
		server.close();
	});

	it('reaches no private address that is not mapped, in whatever spelling', async () => {
		for (const host of [
			'127.0.0.1',
			'2130706433',
			'0x7f.1',
			'[::1]',
			'[::ffff:127.0.0.1]',
			'10.0.0.1',
			'169.254.1.1'
		]) {
			const { record } = await lab.measure({
				...{ url: `http://${host}/`, conditions: QUICK, steps: [] },
				rewriting: { rewrites: [], twin: null }
			});
			expect(record.failure?.code, host).to.equal('private-address');
		}
	});
});
