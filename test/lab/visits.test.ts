import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import Ajv from 'ajv';
import { parse } from 'parse5';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';
import type { Step } from '$core/load/journey/steps';
import { Lab } from '../../src/lab/lab';
import { SCRIPT, NESTED, PAGES, reported, seenHeaders, site } from '../support/visitSite';
import { rule, serve, type RunningServer, UNWATCHED } from '../support/world';

const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const QUICK: Conditions = { ...DESKTOP, quietMs: 700, capMs: 15_000, network: { ...DESKTOP.network, roundTripMs: 10 } };
describe('visits', function () {
	let server: RunningServer;
	let lab: Lab;
	before(async () => {
		server = await serve(site);
		lab = new Lab({
			calm: UNWATCHED,
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
		it('press keys as a visitor does: one empties the field, another sends the form', async () => {
			const { steps, figures } = await load('/keys', QUICK, [
				{ type: 'wrong', into: '#q' },
				{ press: 'Escape' },
				{ type: 'tea', into: '#q' },
				{ press: 'Enter' },
				{ expect: { selector: '#out', text: 'sent tea' } }
			]);
			expect(steps.map((step) => step.status)).to.deep.equal(Array(5).fill('ok'));
			expect(steps[3]).to.include({ kind: 'press', words: 'Press Enter', awaited: true });
			expect(figures.stepShown).to.equal(steps[3]!.shownMs);
		});

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
			expect(requests.filter((item) => item.during === 'step 3' && !item.url.endsWith('/report'))).to.deep.equal([]);
			expect(steps[2]!.inp).to.be.below(steps[0]!.inp!);
			expect(requests.find((item) => item.url.endsWith('/data.json'))!.during).to.equal('step 1');
			expect(figures.inp).to.be.closeTo(reported.get('INP')!, 8);
		});

		it('are timed until what they bring is there, which a timer of the page brings after 500 ms', async () => {
			const swap = [{ click: '#swap' }, { expect: { selector: '#new', text: 'Fares of today' } }];
			const { steps, figures } = await load('/swap', QUICK, swap);
			expect(steps[0]).to.include({ awaited: true, navigated: false });
			// Seen by looking every 20 ms, beside a page that may be slow to answer: never before its timer.
			expect(steps[0]!.shownMs).to.be.within(500, 1500);
			expect(figures.stepShown).to.equal(steps[0]!.shownMs);
			expect(figures.stepQuiet).to.equal(steps[0]!.quietMs);
			const existing = await load('/swap', QUICK, [{ click: '#swap' }, { expect: { text: 'Timetable' } }]);
			expect([existing.steps[0]!.shownMs, existing.figures.stepShown]).to.deep.equal([null, null]);
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
			expect(requests.find((item) => item.url.endsWith('/late.js'))!.during).to.equal('nudge');
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
		expect(record.requests.find((item) => item.url.endsWith('/kept.svg'))).to.include({
			fromCache: true,
			wireBytes: 0
		});
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
		expect(record.requests.find((item) => item.url.includes('through-worker'))).to.include({ fromServiceWorker: true });
		const fetched = record.requests.find((item) => item.url.includes('worker-data'))!;
		expect(fetched).to.include({ initiatorType: 'service worker', status: 200 });
		expect(fetched.wireBytes).to.be.above(1150);
	});

	it('sees requests and long tasks of frames from other sites', async () => {
		const record = await load('/framed');
		expect(record.requests.map((item) => item.host)).to.include('other.test');
		expect(record.requests.some((item) => item.url.endsWith('/kept.svg?inner'))).to.equal(true);
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
		const by = (path: string) => requests.find((item) => item.url.endsWith(path))!;
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
		expect(record.requests.find((item) => item.host === 'chat.test')!.failed).to.match(/blocked/);
		expect(record.environment.notes.join(' ')).to.match(/asked for .*127\.0\.0\.1:4170.*private or local/);
		expect(record.environment.notes.join(' ')).to.match(/10\.0\.0\.7:80/);
		expect(record.requests.some((item) => item.url.startsWith('file:'))).to.equal(false);
		for (const item of record.requests.filter((request) => /127\.0\.0\.1|10\.0\.0\.7/.test(request.url)))
			expect(item.status, item.url).to.equal(null);
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
