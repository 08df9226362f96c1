import { expect } from 'chai';
import type { Browser, Page } from 'playwright-core';
import { LARDER_LEVELS, type SiteState } from '../../demo-web/state/switches';
import { visitorsBrowser } from '../support/visitorsBrowser';
import { startDemoWeb, type RunningWorld } from '../support/world';

describe('what plugins do to pages, in a real browser', () => {
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

	async function open(url: string, change: Partial<SiteState>, width = 412): Promise<Page> {
		const host = new URL(url).hostname;
		web.store.change(host, change, 'published');
		const context = await browser.newContext({ viewport: { width, height: 823 }, ignoreHTTPSErrors: true });
		const page = await context.newPage();
		await page.goto(url);
		return page;
	}

	async function menuOpens(change: Partial<SiteState>): Promise<boolean> {
		const page = await open('https://skerry-line.test/', change);
		await page.getByRole('button', { name: 'Menu' }).click();
		return page.getByRole('link', { name: 'Timetable', exact: true }).isVisible();
	}

	it('the menu opens, and still does with Larder; its joined file breaks it', async () => {
		for (const larder of LARDER_LEVELS) expect(await menuOpens({ larder }), larder).to.equal(true);
		expect(await menuOpens({ larder: 'pages', larderJoins: true })).to.equal(false);
	});

	async function puts(change: Partial<SiteState>): Promise<string> {
		const page = await open('https://pellows-seed-house.test/seed/bean', change);
		await page.mouse.move(50, 50);
		await page.mouse.move(80, 90);
		await page.waitForLoadState('networkidle');
		await page.getByRole('button', { name: 'Add to cart' }).click();
		await page.goto('https://pellows-seed-house.test/cart');
		return page.locator('main').innerText();
	}

	it('the cart takes a packet; Hushbox on inline scripts leaves its button without a handler', async () => {
		expect(await puts({}))
			.to.include('Widow Carrow’s Bean, 3.20')
			.and.include('Together 3.20');
		expect(await puts({ hushbox: 'third-party' })).to.include('Widow Carrow’s Bean');
		expect(await puts({ hushbox: 'inline' })).not.to.include('Widow Carrow’s Bean');
	});

	it('Hushbox holds the chat back until the visitor moves', async () => {
		const page = await open('https://skerry-line.test/', { chat: 'normal', hushbox: 'files' });
		await page.waitForLoadState('networkidle');
		expect(await page.locator('.parlour-bell-box').count()).to.equal(0);
		await page.mouse.move(40, 60);
		await page.mouse.move(60, 80);
		await page.locator('.parlour-bell-box').waitFor();
	});

	it('ads fill their slot late, or reserve two spaces and fill one', async () => {
		const filled = await open('https://skerry-line.test/', { ads: 'normal' }, 1280);
		await filled.locator('.ad-slot img').waitFor();
		const reserved = await open('https://skerry-line.test/', { ads: 'half-filled' }, 1280);
		await reserved.locator('.ad-slot img').waitFor();
		const slots = reserved.locator('.ad-slot');
		const heights = await slots.evaluateAll((all) => all.map((slot) => slot.clientHeight));
		expect(heights).to.have.length(2);
		for (const height of heights) expect(height).to.be.at.least(170);
		expect(await slots.last().locator('img').count()).to.equal(0);
	});
});
