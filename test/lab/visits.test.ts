import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { gzipSync } from 'node:zlib';
import Ajv from 'ajv';
import { parse } from 'parse5';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions';
import type { LoadRecord } from '$core/load/record';
import type { Step } from '$core/load/steps';
import { Lab } from '../../src/lab/lab';
import { rule, serve, type RunningServer } from '../support/world';

const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const QUICK: Conditions = { ...DESKTOP, quietMs: 700, capMs: 15_000, network: { ...DESKTOP.network, roundTripMs: 10 } };
const WEB_VITALS = readFileSync('node_modules/web-vitals/dist/web-vitals.iife.js');
const SCRIPT =
	'function used() { return 1; } used();\n' + 'function never() { return "words that are never needed"; }\n'.repeat(60);
const LONG_TEXT = 'The tide waits for nobody on the pier at Harrow Quay. '.repeat(200);

const html = (title: string, body: string, head = '') =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title>${head}</head><body>${body}</body></html>`;

const NESTED = html(
	'Nested',
	`<h1>Nested</h1><main>${'<div>'.repeat(14)}<p id="deepest">Deep</p>${'</div>'.repeat(14)}<ul>${'<li>One</li>'.repeat(30)}</ul></main>
	<div id="slot" style="width:300px;height:250px"></div><table><tr><td>Cell</table><p>Unclosed<p>Paragraphs<svg width="20" height="20"><circle r="5"/></svg>`
);

const PAGES: Record<string, string> = {
	'/plain': html('Plain', '<h1>Plain</h1>'),
	'/nested': NESTED,
	'/interact': html(
		'Interact',
		`<button id="slow">Slow</button><button id="quick">Quick</button><input id="name"><div id="out"></div>`,
		`<script src="/web-vitals.js"></script><script>
		webVitals.onINP((metric) => navigator.sendBeacon('/report', JSON.stringify({ name: metric.name, value: metric.value })), { reportAllChanges: true });
		addEventListener('DOMContentLoaded', () => {
			document.querySelector('#slow').onclick = () => { const until = performance.now() + 160; while (performance.now() < until); document.querySelector('#out').textContent = 'Done slowly'; fetch('/data.json'); };
			document.querySelector('#quick').onclick = () => { const box = document.createElement('p'); box.textContent = 'Done quickly'; document.querySelector('#out').append(box); };
		});</script>`
	),
	'/covered': html(
		'Covered',
		'<button id="under">Under</button><div id="wall" style="position:fixed;inset:0;background:#eee">We use cookies on this page. Accept?</div>'
	),
	'/held': html(
		'Held',
		'<h1>Held back</h1><div style="height:3000px"></div>',
		`<script>let woke = false; for (const kind of ['pointermove', 'mousemove', 'scroll', 'keydown', 'touchstart']) addEventListener(kind, () => {
			if (woke) return; woke = true; const script = document.createElement('script'); script.src = '/late.js'; document.head.append(script); }, { passive: true });</script>`
	),
	'/cached': html('Cached', '<h1>Cached</h1><img src="/kept.svg" width="40" height="40" alt="">'),
	'/worker': html(
		'Worker',
		'<h1>Worker</h1><p id="said"></p>',
		`<script>
		navigator.serviceWorker.register('/sw.js').then(() => navigator.serviceWorker.ready).then(() => new Promise((go) => navigator.serviceWorker.controller ? go() : navigator.serviceWorker.addEventListener('controllerchange', go)))
		.then(() => fetch('/through-worker.txt')).then((r) => r.text()).then((t) => document.querySelector('#said').textContent = t);</script>`
	),
	'/shadow': html(
		'Shadow',
		'<x-card></x-card>',
		`<script>customElements.define('x-card', class extends HTMLElement { constructor() { super(); this.attachShadow({ mode: 'open' }).innerHTML = '<h1 style="font-size:60px">Inside the shadow</h1><button id="inner">Press</button><p id="told"></p>'; this.shadowRoot.querySelector('#inner').onclick = () => this.shadowRoot.querySelector('#told').textContent = 'pressed'; } });</script>`
	),
	'/framed': html('Framed', '<h1>Outer</h1><iframe src="http://other.test/inner" width="400" height="200"></iframe>'),
	'/inner': html(
		'Inner',
		'<p>Inner words</p><script>const until = performance.now() + 120; while (performance.now() < until);</script><img src="/kept.svg?inner" alt="">'
	),
	'/blocks': html(
		'Blocks',
		'<h1>Blocks</h1><script src="http://chat.test/chat.js"></script><script>fetch("http://127.0.0.1:4170/api/trials").catch(() => 0); fetch("http://10.0.0.7/").catch(() => 0); const f = document.createElement("iframe"); f.src = "file:///etc/passwd"; document.body.append(f);</script>'
	),
	'/weights': html(
		'Weights',
		`<h1>Weights</h1><p>${LONG_TEXT}</p><script src="/code.js"></script>`,
		'<link rel="stylesheet" href="/look.css">'
	)
};

const reported = new Map<string, number>();
const seenHeaders: Record<string, string | string[] | undefined>[] = [];

function site(request: IncomingMessage, response: ServerResponse): void {
	const url = new URL(request.url ?? '/', 'http://site.test');
	const send = (type: string, body: string | Buffer, more: Record<string, string> = {}) =>
		void response.writeHead(200, { 'content-type': type, ...more }).end(body);
	const page = PAGES[url.pathname];
	if (page) {
		seenHeaders.push(request.headers);
		if (url.pathname === '/weights') return send('text/html', gzipSync(page), { 'content-encoding': 'gzip' });
		return send('text/html; charset=utf-8', page);
	}
	switch (url.pathname) {
		case '/web-vitals.js':
			return send('text/javascript', WEB_VITALS);
		case '/late.js':
			return send(
				'text/javascript',
				`const until = performance.now() + 130; while (performance.now() < until);\n//${'x'.repeat(20_000)}`
			);
		case '/code.js':
			return send('text/javascript', SCRIPT, { 'cache-control': 'no-store' });
		case '/look.css':
			return send('text/css', `h1 { color: #123 }\n${'.never { color: red }\n'.repeat(80)}`, {
				'cache-control': 'max-age=86400'
			});
		case '/kept.svg':
			return send(
				'image/svg+xml',
				'<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><rect width="40" height="40"/></svg>',
				{ 'cache-control': 'max-age=600' }
			);
		case '/sw.js':
			return send(
				'text/javascript',
				`self.onactivate = (e) => e.waitUntil(clients.claim()); self.onfetch = (e) => { if (e.request.url.includes('through-worker')) e.respondWith(fetch('/worker-data.txt')); };`
			);
		case '/worker-data.txt':
			return send('text/plain', 'Brought by the worker. '.repeat(50));
		case '/data.json':
			return send('application/json', '{}');
		case '/locked':
			if (request.headers.authorization !== `Basic ${Buffer.from('keeper:tide').toString('base64')}`)
				return void response.writeHead(401, { 'www-authenticate': 'Basic realm="x"' }).end('No');
			return send('text/html', html('Open', '<h1>Open</h1>'));
		case '/report': {
			let body = '';
			request
				.on('data', (chunk) => (body += chunk))
				.on('end', () => {
					const { name, value } = JSON.parse(body) as { name: string; value: number };
					reported.set(name, value);
					response.end();
				});
			return;
		}
		default:
			return void response.writeHead(404).end();
	}
}

describe('visits', function () {
	let server: RunningServer;
	let lab: Lab;
	before(async () => {
		server = await serve(site);
		lab = new Lab({
			hostMap: [
				rule('site.test', server.port),
				rule('other.test', server.port),
				rule('chat.test', server.port),
				{ ...rule('127.0.0.1', server.port), pattern: 'localhost-is-secure.localhost' }
			]
		});
	});
	after(async () => {
		await lab.close();
		server.close();
	});
	const load = async (path: string, conditions: Conditions = QUICK, steps: Step[] = []): Promise<LoadRecord> => {
		const { record } = await lab.measure({ url: `http://site.test${path}`, conditions, steps });
		expect(record.failure, path).to.equal(null);
		return record;
	};

	describe('steps', () => {
		it('are timed with their own requests, and INP agrees with the web-vitals library (to 8 ms)', async function () {
			// The browser hands an interaction over late now and then when the machine is busy.
			this.retries(3);
			reported.clear();
			const { steps, figures, requests } = await load('/interact', QUICK, [
				{ click: '#slow' },
				{ wait: { text: 'Done slowly' } },
				{ click: '#quick' },
				{ type: 'Inner Skerry', into: '#name' },
				{ mark: 'written' },
				{ expect: { text: 'Done quickly', selector: '#out' } }
			]);
			expect(steps.map((step) => step.status)).to.deep.equal(Array(6).fill('ok'));
			expect(steps[0]).to.include({ kind: 'click', navigated: false, words: 'Click #slow' });
			expect(steps[0]!.inp).to.be.within(160, 400);
			expect(steps[0]!.quietMs).to.be.at.least(steps[0]!.inp!);
			// Nothing but the library's own beacon.
			expect(requests.filter((one) => one.during === 'step 3' && !one.url.endsWith('/report'))).to.deep.equal([]);
			expect(steps[2]!.inp).to.be.below(steps[0]!.inp!);
			expect(requests.find((one) => one.url.endsWith('/data.json'))!.during).to.equal('step 1');
			expect(figures.inp).to.be.closeTo(reported.get('INP')!, 8);
		});

		it('tell a swap of a part from a full navigation', async () => {
			const { steps, finalUrl, figures } = await load('/plain', QUICK, [
				{ open: '/nested' },
				{ expect: { title: 'Nested', url: '/nested' } }
			]);
			expect(steps[0]).to.include({ status: 'ok', navigated: true, requests: 1 });
			expect(steps[0]!.quietMs).to.be.above(0);
			// The load itself stays what it was.
			expect(finalUrl).to.match(/\/plain$/);
			expect(figures.requests).to.equal(1);
		});

		it('reach into shadow trees', async () => {
			const { steps, lcp } = await load('/shadow', QUICK, [
				{ click: '#inner' },
				{ expect: { selector: '#told', text: 'pressed' } }
			]);
			expect(steps.map((step) => [step.status, step.message])).to.deep.equal([
				['ok', null],
				['ok', null]
			]);
			expect(lcp).to.not.equal(null);
		});

		it('name step and selector when they fail, with the picture of that moment, and skip the rest', async () => {
			const { record, stepPicture } = await lab.measure({
				url: 'http://site.test/covered',
				conditions: QUICK,
				steps: [{ expect: { selector: '#under' } }, { click: '#under' }, { click: '#wall' }]
			});
			expect(record.steps.map((step) => step.status)).to.deep.equal(['ok', 'failed', 'skipped']);
			expect(record.steps[1]!.message).to.equal('Step 2, Click #under: #under is covered by #wall.');
			expect(stepPicture!.step).to.equal(2);
			expect(stepPicture!.image.length).to.be.above(300);
			expect(record.page!.overlay).to.include({ selector: '#wall' });
			expect(record.page!.overlay!.text).to.match(/We use cookies/);
		});

		it('say what they waited for in vain', async () => {
			const { steps } = await load('/plain', QUICK, [{ expect: { text: 'not here' }, within: 200 }]);
			expect(steps[0]!.message).to.match(
				/^Step 1, Expect the words “not here”: the words “not here” are not on the page \(after 200 ms\)\.$/
			);
			const { steps: bad } = await load('/plain', QUICK, [{ wait: { selector: 'p[' } }]);
			expect(bad[0]!.message).to.match(/not a valid selector/);
		});
	});

	for (const conditions of [QUICK, { ...PHONE, quietMs: 700 }])
		it(`finds what is held back until somebody moves (${conditions.name})`, async () => {
			const { heldBack, figures, requests } = await load('/held', { ...conditions, input: 'nudge' });
			expect(heldBack!.requests).to.equal(1);
			expect(heldBack!.wireBytes).to.be.within(20_000, 22_000);
			expect(heldBack!.scriptMs).to.be.at.least(120);
			expect(requests.find((one) => one.url.endsWith('/late.js'))!.during).to.equal('nudge');
			expect(figures.requests).to.equal(1);
			expect(heldBack!.figuresWith.requests).to.equal(2);
			expect(heldBack!.figuresWith.tbt! - figures.tbt!).to.be.at.least(70);
			expect(heldBack!.figuresWith.score!).to.be.below(figures.score!);
		});

	it('holds nothing against a page that holds nothing back', async () => {
		expect((await load('/plain', { ...QUICK, input: 'nudge' })).heldBack).to.include({ requests: 0, wireBytes: 0 });
		expect((await load('/plain')).heldBack).to.equal(null);
	});

	it('measures the repeat visit in the profile of the first, over new connections', async () => {
		const record = await load('/cached', { ...QUICK, cache: 'repeat' });
		expect(record.firstVisit!.requests).to.equal(2);
		expect(record.requests.find((one) => one.url.endsWith('/kept.svg'))).to.include({ fromCache: true, wireBytes: 0 });
		expect(record.figures.wire!).to.be.below(record.firstVisit!.wire!);
		// The log of the line begins anew with the second visit: it had to connect again.
		expect(record.environment.network!.mostConnections).to.be.at.least(1);
		expect(record.environment.network!.downBytes).to.be.within(100, 2000);
	});

	it('sees what a service worker answers, and what it fetches for it', async () => {
		// Service workers need a secure origin: names under localhost are, over plain HTTP too.
		const { record } = await lab.measure({
			url: 'http://localhost-is-secure.localhost/worker',
			conditions: QUICK,
			steps: []
		});
		expect(record.failure).to.equal(null);
		expect(record.page!.text).to.include('Brought by the worker');
		expect(record.requests.find((one) => one.url.includes('through-worker'))).to.include({ fromServiceWorker: true });
		const fetched = record.requests.find((one) => one.url.includes('worker-data'))!;
		expect(fetched).to.include({ initiatorType: 'service worker', status: 200 });
		expect(fetched.wireBytes).to.be.above(1150);
	});

	it('sees requests and long tasks of frames from other sites', async () => {
		const record = await load('/framed');
		expect(record.requests.map((one) => one.host)).to.include('other.test');
		expect(record.requests.some((one) => one.url.endsWith('/kept.svg?inner'))).to.equal(true);
		expect(record.longTasks.some((task) => task.durationMs >= 110)).to.equal(true);
	});

	it('counts DOM elements and depth as parse5 does', async () => {
		const { page } = await load('/nested');
		let elements = 0;
		let depth = 0;
		const walk = (node: { tagName?: string; childNodes?: unknown[] }, level: number) => {
			if (node.tagName) {
				elements++;
				depth = Math.max(depth, level);
			}
			for (const child of (node.childNodes ?? []) as (typeof node)[]) walk(child, level + (node.tagName ? 1 : 0));
		};
		walk(parse(NESTED) as never, 1);
		expect(page).to.include({ elements, depth });
		expect(page!.deepestPath).to.match(/div > p#deepest$/);
		expect(page!.widestParent!.children).to.equal(30);
		expect(page!.emptySlots.map((slot) => slot.selector)).to.deep.equal(['#slot']);
	});

	it('weighs bodies as zlib does, and what the page never used', async () => {
		const { requests, figures } = await load('/weights');
		const by = (path: string) => requests.find((one) => one.url.endsWith(path))!;
		const document = by('/weights');
		const raw = Buffer.from(PAGES['/weights']!);
		expect(document.body).to.include({ bytes: raw.length, gzipBytes: gzipSync(raw, { level: 6 }).length });
		expect(document.decodedBytes).to.equal(raw.length);
		expect(document.wireBytes).to.be.within(gzipSync(raw).length, gzipSync(raw).length + 400);
		expect(by('/code.js').unused).to.be.closeTo(SCRIPT.length - 40, 130);
		expect(by('/look.css').unused).to.be.closeTo(80 * 22, 60);
		expect(figures.unusedJs).to.equal(by('/code.js').unused);
	});

	it('blocks by pattern; refuses private addresses and files, and says so', async () => {
		const record = await load('/blocks', { ...QUICK, block: ['*://chat.test/*'] });
		expect(record.requests.find((one) => one.host === 'chat.test')!.failed).to.match(/blocked/);
		expect(record.environment.notes.join(' ')).to.match(/asked for .*127\.0\.0\.1:4170.*private or local/);
		expect(record.environment.notes.join(' ')).to.match(/10\.0\.0\.7:80/);
		expect(record.requests.some((one) => one.url.startsWith('file:'))).to.equal(false);
		for (const one of record.requests.filter((request) => /127\.0\.0\.1|10\.0\.0\.7/.test(request.url)))
			expect(one.status, one.url).to.equal(null);
	});

	it('sends headers, cookies and credentials, and keeps their secrets out of the record', async () => {
		seenHeaders.length = 0;
		const record = await load('/plain', {
			...QUICK,
			headers: [{ name: 'X-Stage', value: 'preview-17' }],
			cookies: [{ name: 'consent', value: 'given-9' }]
		});
		expect(seenHeaders[0]).to.include({ 'x-stage': 'preview-17', cookie: 'consent=given-9' });
		expect(JSON.stringify(record.conditions)).to.not.match(/preview-17|given-9/);
		const locked = await lab.measure({ url: 'http://site.test/locked', conditions: QUICK, steps: [] });
		expect(locked.record.failure!.code).to.equal('http-status');
		const opened = await load('/locked', { ...QUICK, authentication: { username: 'keeper', password: 'tide' } });
		expect(opened.page!.title).to.equal('Open');
		expect(JSON.stringify(opened)).to.not.match(/"tide"/);
	});

	it('lets conditions map hosts, but to private addresses only where the operator does', async () => {
		const mapped = await lab.measure({
			url: 'http://new-server.test/plain',
			conditions: {
				...QUICK,
				hostMap: `new-server.test=127.0.0.1:${server.port}`
			},
			steps: []
		});
		expect(mapped.record.status).to.equal('ok');
		const refused = await lab.measure({
			url: 'http://new-server.test/plain',
			conditions: {
				...QUICK,
				hostMap: 'new-server.test=127.0.0.1:4170'
			},
			steps: []
		});
		expect(refused.record.failure!.code).to.equal('private-address');
	});

	it('takes the place into the round trip', async () => {
		const far = await load('/plain', { ...QUICK, place: 'north-america-east' });
		expect(far.figures.ttfb).to.be.at.least(2 * 100 - 50);
	});

	it('writes records that fit the published schema', async () => {
		const record = await load('/held', { ...QUICK, input: 'nudge' }, [{ scroll: 'bottom' }]);
		const ajv = new Ajv();
		const valid = ajv.validate(
			JSON.parse(readFileSync('docs/load-record.schema.json', 'utf8')) as object,
			JSON.parse(JSON.stringify(record))
		);
		expect(valid, ajv.errorsText()).to.equal(true);
		expect(
			ajv.validate(JSON.parse(readFileSync('docs/load-record.schema.json', 'utf8')) as object, {
				...record,
				figures: {}
			})
		).to.equal(false);
	});
});
