import { expect } from 'chai';
import { readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { execFileSync } from 'node:child_process';
import Ajv from 'ajv';
import sharp from 'sharp';
import * as harSchema from 'har-schema';
import { harOf } from '$core/formats/har';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { metricOf } from '$core/metrics/catalogue';
import { scoreOf } from '$core/metrics/score';
import { Lab } from '../../src/lab/lab';
import type { LoadRecord, MeasuredLoad } from '$core/load/record/record';
import {
	freePort,
	rule,
	serve,
	startDemoWeb,
	type RunningServer,
	type RunningWorld,
	until,
	UNWATCHED
} from '../support/world';

const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
/** A quick line and a short patience, for pages that will fail anyway. */
const HASTY: Conditions = { ...DESKTOP, capMs: 6000, quietMs: 500, network: { ...DESKTOP.network, roundTripMs: 10 } };

const WEB_VITALS = readFileSync('node_modules/web-vitals/dist/web-vitals.iife.js');

/** A page that shifts, paints late and reports what the reference library sees of it. */
const REFERENCE_PAGE = `<!doctype html><html lang="en"><title>Reference</title><script src="/web-vitals.js"></script><script>
const report = (metric) => navigator.sendBeacon('/report', JSON.stringify({ name: metric.name, value: metric.value }));
webVitals.onTTFB(report, { reportAllChanges: true }); webVitals.onFCP(report, { reportAllChanges: true });
webVitals.onLCP(report, { reportAllChanges: true }); webVitals.onCLS(report, { reportAllChanges: true });
setTimeout(() => { const box = document.createElement('div'); box.style.height = '180px'; document.body.prepend(box); }, 700);
setTimeout(() => { const box = document.createElement('div'); box.style.height = '90px'; document.body.prepend(box); }, 2600);
setTimeout(() => { document.querySelector('#late').textContent = 'A large block of text that comes late and is painted last of all. '.repeat(30); }, 1100);
</script><body style="margin:0;font:20px sans-serif"><h1>First words</h1><p>Some text that moves when a box comes in above it.</p><div id="late"></div>`;

const reported = new Map<string, number>();
let silentRequests = 0;

function trouble(request: IncomingMessage, response: ServerResponse): void {
	const url = new URL(request.url ?? '/', 'http://trouble.test');
	const html = (body: string, status = 200) => response.writeHead(status, { 'content-type': 'text/html' }).end(body);
	switch (url.pathname) {
		case '/404':
		case '/500':
			return void html('<h1>An error page with text</h1>', Number(url.pathname.slice(1)));
		case '/loop':
			return void response.writeHead(302, { location: '/loop' }).end();
		case '/once':
			return void response.writeHead(302, { location: '/plain' }).end();
		case '/plain':
			return void html('<!doctype html><html lang="en"><title>Plain</title><h1>Plain</h1><p>Nothing else.</p>');
		case '/download':
			return void response
				.writeHead(200, { 'content-type': 'application/zip', 'content-disposition': 'attachment; filename=a.zip' })
				.end('zip');
		case '/silent':
			silentRequests++;
			return;
		case '/endless-image':
			return void html('<!doctype html><title>Endless</title><h1>Text</h1><img src="/silent">');
		case '/endless-requests':
			return void html(
				`<!doctype html><title>Chatty</title><h1>Text</h1><script>setInterval(() => fetch('/plain?' + Math.random()), 100)</script>`
			);
		case '/endless-script':
			return void html(
				'<!doctype html><title>Busy</title><h1>Text</h1><script>addEventListener("load", () => setTimeout(() => { for (;;); }, 50))</script>'
			);
		case '/alert':
			return void html(
				'<!doctype html><title>Alert</title><h1>Text</h1><script>alert("hello"); document.title = "after"</script>'
			);
		case '/moves-on':
			return void html(
				'<!doctype html><title>Moves</title><meta http-equiv="refresh" content="0;url=/plain"><h1>Wait</h1>'
			);
		case '/reference':
			return void html(REFERENCE_PAGE);
		case '/web-vitals.js':
			return void response.writeHead(200, { 'content-type': 'text/javascript' }).end(WEB_VITALS);
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
			return void html('<h1>Not here</h1>', 404);
	}
}

describe('lab', function () {
	let web: RunningWorld;
	let faults: RunningServer;
	let lab: Lab;
	before(async () => {
		web = await startDemoWeb();
		faults = await serve(trouble);
		lab = new Lab({
			calm: UNWATCHED,
			hostMap: [
				rule('trouble.test', faults.port),
				rule('closed.test', await freePort()),
				{ ...web.rules[0]!, pattern: 'wrong.test', tlsPort: web.wrongPort },
				...web.rules
			],
			trustedKeys: [web.keyHash]
		});
	});
	after(async () => {
		await lab.close();
		web.close();
		faults.close();
	});

	describe('a page of the simulated web', () => {
		let measured: MeasuredLoad;
		let record: LoadRecord;
		before(async () => {
			// A chat that comes before the first paint pushes nothing down: on a busy machine it may.
			for (let tries = 0; tries < 3 && !record?.shifts.length; tries++) {
				measured = await lab.measure({
					url: 'https://with-chat.skerry-line.test/timetable',
					conditions: PHONE,
					steps: []
				});
				record = measured.record;
			}
		});

		it('is measured in all metrics that need no interaction and no step', () => {
			expect(record.failure).to.equal(null);
			const missing = Object.entries(record.figures)
				.filter(([, value]) => value === null)
				.map(([id]) => id);
			expect(missing).to.have.members(['inp', 'stepShown', 'stepQuiet']);
			const { ttfb, fcp, lcp, onload, full, start } = record.figures;
			// A round trip of 120 ms: handshake, TLS, request and answer cannot be quicker than three of them.
			expect(ttfb).to.be.above(360);
			expect(fcp).to.be.above(ttfb!);
			expect(lcp).to.be.at.least(fcp!);
			expect(full).to.be.at.least(onload!);
			expect(start).to.be.above(0);
			expect(record.figures.score).to.be.closeTo(scoreOf(record.figures).value!, 1e-9);
		});

		it('knows each request with its sizes, status, kind and who asked for it', () => {
			const byPath = (path: string) => record.requests.find((request) => new URL(request.url).pathname === path)!;
			expect(byPath('/timetable')).to.include({ type: 'document', status: 200 });
			expect(byPath('/bell.js')).to.include({ host: 'parlour-bell.test', type: 'script' });
			expect(record.requests.find((request) => /quay/.test(request.url))).to.include({
				type: 'image',
				mimeType: 'image/jpeg'
			});
			const css = byPath('/lathwork/rows.css');
			expect(css.renderBlocking).to.equal('blocking');
			expect(css.decodedBytes).to.be.above(css.wireBytes!);
			expect(byPath('/greeting.json').initiatorUrl).to.match(/bell\.js\?/);
			expect(byPath('/fonts/harbour.woff2').type).to.equal('font');
			expect(record.figures.wire).to.equal(record.requests.reduce((sum, request) => sum + request.wireBytes!, 0));
			for (const request of record.requests) expect(request.endMs, request.url).to.be.at.least(request.responseMs!);
		});

		it('names the LCP element and what the chat pushed down', () => {
			expect(record.lcp!.selector).to.be.a('string');
			expect(record.lcp!.atMs).to.equal(record.figures.lcp);
			expect(record.figures.cls).to.be.above(0.005);
			expect(record.shifts.flatMap((shift) => shift.elements).length).to.be.above(0);
			expect(record.longTasks.length).to.be.above(0);
			expect(record.page).to.include({ title: 'Timetable – Skerry Line', language: 'en' });
		});

		it('keeps frames that go from blank to complete, and a picture', async () => {
			expect(record.frames.length).to.be.above(2);
			expect(record.frames[0]!.progress).to.be.below(0.5);
			expect(record.frames.at(-1)!.progress).to.equal(1);
			expect(measured.frames).to.have.length(record.frames.length);
			const { format, width, height } = await sharp(Buffer.from(measured.picture!)).metadata();
			expect({ format, width, height }).to.deep.equal({ format: 'webp', width: 384, height: 810 });
		});

		it('says on what machine and in what browser', () => {
			expect(record.environment.browser).to.match(/^Chromium \d+/);
			expect(record.environment.machineSpeed.before).to.be.above(0);
			expect(record.environment.slowdown).to.be.at.least(1);
		});

		it('becomes a HAR that har-schema accepts', () => {
			const ajv = new Ajv({ schemaId: 'auto', unknownFormats: 'ignore' } as Ajv.Options);
			ajv.addMetaSchema(
				JSON.parse(readFileSync('node_modules/ajv/lib/refs/json-schema-draft-06.json', 'utf8')) as object
			);
			for (const schema of Object.values(harSchema) as object[])
				if ((schema as { $id?: string }).$id) ajv.addSchema(schema);
			const har = JSON.parse(JSON.stringify(harOf(record, '0.0.0'))) as {
				log: { entries: { timings: Record<string, number>; time: number }[] };
			};
			expect(ajv.validate('har.json', har), ajv.errorsText()).to.equal(true);
			expect(har.log.entries).to.have.length(record.requests.length);
			expect(har.log.entries[0]!.time).to.be.above(0);
		});
	});

	it('agrees with the web-vitals library in the same page (to 1 ms and 0.0001)', async () => {
		reported.clear();
		const { record } = await lab.measure({ url: 'http://trouble.test/reference', conditions: DESKTOP, steps: [] });
		expect(record.failure).to.equal(null);
		expect(reported.get('CLS')).to.be.above(0.01);
		expect(record.figures.cls).to.be.closeTo(reported.get('CLS')!, 0.0001);
		for (const [name, id] of [
			['LCP', 'lcp'],
			['FCP', 'fcp'],
			['TTFB', 'ttfb']
		] as const)
			expect(record.figures[id], metricOf(id).name).to.be.closeTo(reported.get(name)!, 1);
	});

	it('follows redirects and pages that move on, on one clock', async () => {
		const once = (await lab.measure({ url: 'http://trouble.test/once', conditions: HASTY, steps: [] })).record;
		expect(once).to.include({ status: 'ok', finalUrl: 'http://trouble.test/plain' });
		expect(once.redirects).to.deep.equal(['http://trouble.test/once']);
		const moved = (await lab.measure({ url: 'http://trouble.test/moves-on', conditions: HASTY, steps: [] })).record;
		expect(moved).to.include({ status: 'ok', finalUrl: 'http://trouble.test/plain' });
		expect(moved.figures.ttfb!).to.be.above(moved.requests[0]!.responseMs!);
	});

	it('closes alerts and goes on', async () => {
		const { record } = await lab.measure({ url: 'http://trouble.test/alert', conditions: HASTY, steps: [] });
		expect(record.page!.title).to.equal('after');
	});

	it('says so when a page never becomes quiet', async () => {
		const { record } = await lab.measure({ url: 'http://trouble.test/endless-requests', conditions: HASTY, steps: [] });
		expect(record).to.include({ status: 'ok', capped: true });
		expect(record.environment.notes.join()).to.match(/still busy after 6 s/);
	});

	const FAILURES: [url: string, code: string, words: RegExp][] = [
		['http://trouble.test/404', 'http-status', /status 404/],
		['http://trouble.test/500', 'http-status', /status 500/],
		['http://trouble.test/loop', 'redirect-loop', /circle/],
		['http://trouble.test/download', 'download', /application\/zip/],
		['http://trouble.test/silent', 'no-answer', /within 6 s/],
		['http://trouble.test/endless-image', 'time-out', /1 request was still under way/],
		['http://trouble.test/endless-script', 'time-out', /main thread/],
		['http://closed.test/', 'refused', /closed\.test refused/],
		['http://nowhere.invalid/', 'unresolvable', /nowhere\.invalid was not found/],
		['http://127.0.0.1:4170/', 'private-address', /private or local/],
		['https://trouble.test/', 'refused', /refused/],
		['https://wrong.test/', 'certificate', /certificate/],
		['file:///etc/passwd', 'bad-url', /not a web address/],
		['nonsense', 'bad-url', /not a web address/]
	];
	for (const [url, code, words] of FAILURES)
		it(`fails with a reason in words: ${code} for ${url}`, async () => {
			const { record } = await lab.measure({ url, conditions: HASTY, steps: [] });
			expect(record.status).to.equal('failed');
			expect(record.failure!.code).to.equal(code);
			expect(record.failure!.message).to.match(words);
			expect(record.failure!.advice.length).to.be.above(10);
			expect(record.figures.score).to.equal(null);
		});

	it('outlives its browser: a killed Chromium fails one load, the next has a new one', async () => {
		const before = silentRequests;
		const loading = lab.measure({ url: 'http://trouble.test/silent', conditions: HASTY, steps: [] });
		await until(() => silentRequests > before, 20_000, 'the page to be asked for');
		const mine = execFileSync('ps', ['-eo', 'pid,ppid,args'])
			.toString()
			.split('\n')
			.map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line))
			.filter((match) => match && Number(match[2]) === process.pid && /chromium/.test(match[3]!));
		expect(mine).to.have.length(1);
		process.kill(Number(mine[0]![1]), 'SIGKILL');
		expect((await loading).record.failure!.code).to.equal('browser-killed');
		expect(
			(await lab.measure({ url: 'http://trouble.test/plain', conditions: HASTY, steps: [] })).record.status
		).to.equal('ok');
	});

	it('leaves no browser and no profile behind', async () => {
		const mine = () =>
			execFileSync('ps', ['-eo', 'pid,ppid,stat,args'])
				.toString()
				.split('\n')
				.filter(
					(line) =>
						/chromium/.test(line) && / {0,}\d+ +(\d+) /.exec(line)?.[1] === String(process.pid) && !/ Z/.test(line)
				);
		const profiles = () => readdirSync(tmpdir()).filter((name) => name.startsWith('zafra-lab-')).length;
		const before = profiles();
		const brief = new Lab({ calm: UNWATCHED, hostMap: [rule('trouble.test', faults.port)] });
		await brief.measure({ url: 'http://trouble.test/plain', conditions: HASTY, steps: [] });
		expect(profiles()).to.equal(before + 1);
		const running = mine().length;
		await brief.close();
		expect(profiles()).to.equal(before);
		expect(mine().length).to.equal(running - 1);
	});

	it('says what to install when there is no Chromium', async () => {
		const before = process.env.ZAFRA_CHROMIUM;
		process.env.ZAFRA_CHROMIUM = '/nowhere/chromium';
		const bare = new Lab({ calm: UNWATCHED });
		try {
			const { record } = await bare.measure({ url: 'http://trouble.test/plain', conditions: HASTY, steps: [] });
			expect(record.failure).to.include({ code: 'browser-missing' });
			expect(record.failure!.advice).to.include('apt-get install chromium');
		} finally {
			await bare.close();
			if (before === undefined) delete process.env.ZAFRA_CHROMIUM;
			else process.env.ZAFRA_CHROMIUM = before;
		}
	});
});
