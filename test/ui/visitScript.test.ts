/** The visits' script in real pages: what it reports is what the page had, and it leaves the page alone. */
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { gzipSync } from 'node:zlib';
import { chromium, type Browser, type BrowserContext, type Page } from 'playwright-core';
import { findChromium } from '../../src/lab/browser/find';
import { startApp, type TestApp } from '../support/app';
import { listen, until, type RunningServer } from '../support/world';

const REFERENCE = readFileSync('node_modules/web-vitals/dist/web-vitals.iife.js', 'utf8');
const AGENT =
	'Mozilla/5.0 (Linux; Android 14; Pixel) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Mobile Safari/537.36';

/** Moves 300 ms after its first paint, has a button that keeps the main thread for 90 ms, and a route of its own. */
const PAGE = (tag: string) => `<!doctype html><html lang="en"><head><title>Visited</title>
<script>${REFERENCE}</script>
<script>window.reference={};for(const on of ['onLCP','onCLS','onINP','onFCP','onTTFB'])webVitals[on](({name,value})=>{reference[name.toLowerCase()]=value},{reportAllChanges:true});
addEventListener('pagehide',()=>localStorage.setItem('reference',JSON.stringify(reference)));
addEventListener('pageshow',({persisted})=>persisted&&setTimeout(()=>{location.href='/away'},600));
if(location.search==='?back')addEventListener('load',()=>setTimeout(()=>history.back(),400));
(window.zafraGoals??=[]).push('looked');window.told=[];window.counter={note(event){told.push(event)}}</script>${tag}</head>
<body><div id="late"></div><h1 style="font-size:60px">Harrow Quay</h1><button id="slow">Menu</button><button id="route">Fares</button><a id="away" href="/away">Away</a><main></main>
<script>
setTimeout(()=>{late.style.height='120px'},300);
performance.mark('menu-ready');performance.measure('read',{start:100,duration:42});performance.mark('unasked');
slow.onclick=()=>{const until=performance.now()+90;while(performance.now()<until);slow.textContent='Menu open'};
route.onclick=()=>{setTimeout(()=>{history.pushState({},'','/fares?from=quay');document.querySelector('main').innerHTML='<h2 style="font-size:50px">Fares of today</h2><p>'+'Every crossing of the day. '.repeat(40)+'</p>';(window.zafraGoals).push('booked')},20)};
</script></body></html>`;

describe('the visits’ script', function () {
	this.timeout(120_000);
	let app: TestApp;
	let server: RunningServer;
	let browser: Browser;
	let siteId: number;
	let key: string;
	before(async () => {
		app = await startApp({ environment: { ZAFRA_RUNNER: 'off' } });
		const { body: client } = await app.api('POST', '/api/clients', { name: 'Skerry Line' });
		const site = { clientId: client.id, host: 'visited.test', name: 'Visited', role: 'own' };
		({ id: siteId } = (await app.api('POST', '/api/sites', site)).body);
		({ key } = (await app.api('POST', `/api/visits/${siteId}`)).body);
		const settings = {
			timings: [
				{ name: 'menu-ready', good: 500, poor: 900 },
				{ name: 'read', good: 50, poor: 90 }
			],
			goals: ['looked', 'booked'],
			handOver: {
				call: 'counter.note',
				nameField: 'name',
				valueField: 'value',
				quietField: 'nonInteraction',
				events: { cls: 'speed_shift', lcp: 'speed_paint' }
			}
		};
		expect((await app.api('PUT', `/api/visits/${siteId}`, settings)).status).to.equal(200);
		server = await listen(
			createServer((request, response) => {
				const bare = request.url!.startsWith('/away') || request.url!.startsWith('/bare');
				const tag = bare ? '' : `<script async src="${app.url}/visit/zafra.js?site=${key}"></script>`;
				response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(PAGE(tag));
			})
		);
		browser = await chromium.launch({
			executablePath: findChromium()!,
			ignoreDefaultArgs: ['--disable-back-forward-cache'],
			args: [
				'--no-sandbox',
				// Emulating it for a page ends before the page has sent its last.
				`--user-agent=${AGENT}`,
				'--disable-blink-features=AutomationControlled',
				`--host-resolver-rules=MAP visited.test:80 127.0.0.1:${server.port}, MAP *.test:443 127.0.0.1:${app.web.tlsPort}`
			]
		});
	});
	after(async () => {
		await browser?.close();
		server?.close();
		await app?.end();
	});

	let context: BrowserContext;
	let page: Page;
	beforeEach(async () => {
		context = await browser.newContext({ ignoreHTTPSErrors: true });
		page = await context.newPage();
	});
	afterEach(() => context.close());

	const visitsOf = async (path: string) =>
		(await app.api('GET', `/api/visits/${siteId}`)).body.visits.filter(
			(visit: { path: string }) => visit.path === path
		);
	async function open(path: string): Promise<void> {
		await page.goto(`http://visited.test${path}`);
		await page.waitForFunction(() => typeof (window as never as { zafraVisits: unknown }).zafraVisits === 'object');
		// Until the shift has come, and the frame after it.
		await page.waitForTimeout(700);
	}

	it('is at most 8 kB gzipped, sets no cookie and stores nothing', async () => {
		const reply = await fetch(`${app.url}/visit/zafra.js?site=${key}`, { headers: { 'accept-encoding': 'gzip' } });
		const text = await reply.text();
		expect(reply.headers.get('content-encoding')).to.equal('gzip');
		expect(gzipSync(text).length).to.be.at.most(8000);
		expect(reply.headers.get('set-cookie')).to.equal(null);
		expect(text).not.to.match(/\.cookie|localStorage|sessionStorage|indexedDB/);
		expect((await fetch(`${app.url}/visit/zafra.js?site=nobody`)).status).to.equal(404);
	});

	it('reports what the reference library sees in the same page: 1 ms, 1e-4, INP 8 ms', async () => {
		await open('/timetable?token=secret#top');
		await page.click('#slow');
		await page.getByText('Menu open').waitFor();
		await page.waitForTimeout(300);
		await page.click('#away');
		await until(async () => (await visitsOf('/timetable')).length > 0, 10_000, 'the visit');
		const [visit] = await visitsOf('/timetable');
		const kept = await page.evaluate(() => localStorage.getItem('reference'));
		const reference = JSON.parse(kept!) as Record<string, number>;
		for (const metric of ['lcp', 'fcp', 'ttfb'])
			expect(visit.metrics[metric], metric).to.be.closeTo(reference[metric]!, 1);
		expect(visit.metrics.cls).to.be.closeTo(reference.cls!, 1e-4);
		expect(visit.metrics.cls).to.be.above(0);
		expect(visit.metrics.inp).to.be.closeTo(reference.inp!, 8);
		expect(visit.metrics.inp).to.be.at.least(88);
		expect(visit).to.include({ device: 'phone', navigation: 'navigate', fault: null });
		expect(visit.origins.lcp.target).to.match(/h1/);
		expect(visit.origins.inp.target).to.match(/#slow/);
		expect(visit.timings.read).to.equal(42);
		expect(visit.timings).to.have.all.keys('menu-ready', 'read');
		expect(visit.goals).to.deep.equal(['looked']);
		expect(JSON.stringify(visit)).not.to.match(/secret|unasked/);
		expect(await visitsOf('/timetable')).to.have.length(1);
		expect(await context.cookies()).to.deep.equal([]);
	});

	it('tells route changes as page views of their own', async () => {
		await open('/quay');
		await page.click('#route');
		await page.getByText('Fares of today').waitFor();
		await page.waitForTimeout(1000);
		await page.click('#away');
		await until(async () => (await visitsOf('/fares')).length > 0, 10_000, 'the route');
		const [first] = await visitsOf('/quay');
		const [route] = await visitsOf('/fares');
		expect(first.navigation).to.equal('navigate');
		expect(route.navigation).to.equal('soft-navigation');
		expect(route.metrics.lcp).to.be.below(1000);
		expect(route.goals).to.deep.equal(['booked']);
		expect(first.metrics.cls).to.be.above(0);
	});

	it('tells a page that came back from the back/forward cache as one more page view', async () => {
		await open('/harbour');
		// The pages go there and back by themselves: a driven browser holds on to what it should put away.
		await page.evaluate(() => void (location.href = '/away?back'));
		await until(async () => (await visitsOf('/harbour')).length > 1, 10_000, 'both views');
		const kinds = (await visitsOf('/harbour')).map(({ navigation }: { navigation: string }) => navigation);
		expect(kinds).to.have.members(['back-forward-cache', 'navigate']);
	});

	it('hands the page’s analytics whole numbers, once, as events without interaction', async () => {
		await open('/pier');
		const told = await page.evaluate(() => {
			Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
			document.dispatchEvent(new Event('visibilitychange'));
			document.dispatchEvent(new Event('visibilitychange'));
			return (window as never as { told: unknown[] }).told;
		});
		await until(async () => (await visitsOf('/pier')).length > 0, 10_000, 'the visit');
		const [visit] = await visitsOf('/pier');
		expect(told).to.have.deep.members([
			{ name: 'speed_shift', value: Math.round(visit.metrics.cls * 1000), nonInteraction: true },
			{ name: 'speed_paint', value: Math.round(visit.metrics.lcp), nonInteraction: true }
		]);
	});

	it('is taken by way of the site’s own host, and changes no bounce in its analytics', async () => {
		await app.api('PUT', `/api/visits/${siteId}`, { goals: [] });
		const { body: demo } = await app.api('POST', '/api/clients', { name: 'Ferries' });
		const site = { clientId: demo.id, host: 'skerry-line.test', name: 'Ferries', role: 'own' };
		const own = (await app.api('POST', '/api/sites', site)).body.id;
		const source = (await app.api('POST', `/api/visits/${own}`)).body;
		const handOver = {
			call: 'stilewatch.note',
			nameField: 'event',
			valueField: 'amount',
			quietField: 'quiet',
			events: { lcp: 'speed-largest-paint', cls: 'speed-shift' }
		};
		await app.api('PUT', `/api/visits/${own}`, { handOver });
		// The simulated site's pages carry the demonstration's key.
		await page.route(/\/visit\/zafra\.js/, async (route) => {
			const reply = await fetch(`${app.url}/visit/zafra.js?site=${source.key}`);
			await route.fulfill({ body: await reply.text(), contentType: 'text/javascript' });
		});
		await page.goto('https://www.skerry-line.test/contact');
		await page.waitForLoadState('networkidle');
		await page.goto('about:blank');
		const seen = async () => (await app.api('GET', `/api/visits/${own}`)).body.visits;
		await until(async () => (await seen()).length > 0, 10_000, 'the visit');
		expect((await seen())[0].path).to.equal('/contact');
		const noted = async () => {
			const tab = await context.newPage();
			await tab.goto('https://stilewatch.test/noted?site=www.skerry-line.test');
			const text = await tab.locator('body').innerText();
			await tab.close();
			return JSON.parse(text) as { visits: number; bounces: number; notes: { event: string; amount: number }[] };
		};
		const { visits, bounces, notes } = await noted();
		expect({ visits, bounces }).to.deep.equal({ visits: 1, bounces: 1 });
		expect(notes.map(({ event }) => event)).to.have.members(['speed-largest-paint', 'speed-shift']);
		for (const { amount } of notes) expect(Number.isInteger(amount)).to.equal(true);
	});
});
