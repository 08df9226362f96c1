import { expect } from 'chai';
import type { Browser, BrowserContext } from 'playwright-core';
import type { SiteState } from '../../demo-web/state/switches';
import { visitorsBrowser } from '../support/visitorsBrowser';
import { startDemoWeb, type RunningWorld } from '../support/world';

describe('what a site itself must send, in a real browser', () => {
	let web: RunningWorld;
	let browser: Browser;
	before(async () => {
		web = await startDemoWeb();
		browser = await visitorsBrowser(web);
	});
	after(async () => {
		await browser.close();
		web.close();
	});
	beforeEach(() => web.store.reset());

	async function open(change: Partial<SiteState>, context?: BrowserContext) {
		web.store.change('skerry-line.test', change, 'published');
		const own = context ?? (await browser.newContext({ ignoreHTTPSErrors: true }));
		const page = await own.newPage();
		const sent: string[] = [];
		page.on('request', (request) => sent.push(`${request.method()} ${new URL(request.url()).pathname}`));
		await page.goto('https://skerry-line.test/timetable', { waitUntil: 'load' });
		await page.waitForLoadState('networkidle');
		return { page, sent, context: own };
	}

	it('counts nobody before they agree, tells the site of the choice, and remembers it', async () => {
		const { page, sent, context } = await open({ consent: true });
		expect(sent).not.to.include('GET /count.js');
		const counted = page.waitForRequest((request) => new URL(request.url()).pathname === '/count.js');
		await page.locator('#consent-accept').click();
		await counted;
		expect(sent).to.include('POST /consent/choice');
		expect(sent).to.include('GET /count.js');
		const again = await open({ consent: true }, context);
		expect(again.sent).to.include('GET /count.js');
		expect(await again.page.locator('#consent').count()).to.equal(0);
	});

	it('tells the order desk that a page was seen; Larder’s joined file throws that away, and the layer with it', async () => {
		expect((await open({ orders: true, consent: true })).sent).to.include('POST /orders/seen');
		const { sent, page } = await open({ orders: true, consent: true, larder: 'pages', larderJoins: true });
		expect(sent).not.to.include('POST /orders/seen');
		expect(await page.locator('#consent').count()).to.equal(0);
	});

	it('shows members pages of their own, past the page cache', async () => {
		const { page, context } = await open({ accounts: true, larder: 'pages-and-files' });
		await page.goto('https://skerry-line.test/account');
		await page.locator('#account-name').fill('Ines');
		await page.locator('#account-enter').click();
		await page.locator('#account-hello').waitFor();
		const member = await open({ accounts: true, larder: 'pages-and-files' }, context);
		expect(await member.page.locator('#member-note').count()).to.equal(1);
		const stranger = await open({ accounts: true, larder: 'pages-and-files' });
		expect(await stranger.page.locator('#member-note').count()).to.equal(0);
	});
});
