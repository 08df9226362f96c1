import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { chromium, type Browser, type Page } from 'playwright-core';
import { findChromium } from '../../src/lab/browser/find';
import { startApp, type TestApp } from '../support/app';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

describe('interface', () => {
	let app: TestApp;
	let browser: Browser;
	let page: Page;
	const asked: string[] = [];
	const troubles: string[] = [];
	before(async () => {
		app = await startApp({ demo: true });
		browser = await chromium.launch({ executablePath: findChromium()!, args: ['--no-sandbox'] });
		page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
		page.on('request', (request) => asked.push(request.url()));
		page.on('pageerror', (error) => troubles.push(error.message));
		page.on(
			'console',
			(message) =>
				message.type() === 'error' && !/status of (422|404)/.test(message.text()) && troubles.push(message.text())
		);
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});

	async function violations(): Promise<string[]> {
		await page.evaluate(AXE);
		return page.evaluate(async () => {
			const axe = (
				globalThis as unknown as {
					axe: { run(options: object): Promise<{ violations: { id: string; nodes: { target: string[] }[] }[] }> };
				}
			).axe;
			const { violations } = await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] });
			return violations.map(
				(one) =>
					`${one.id}: ${one.nodes
						.map((node) => node.target.join(' '))
						.slice(0, 3)
						.join(' | ')}`
			);
		});
	}

	const PAGES = [
		'/',
		'/trials',
		'/trials/new',
		'/trials/new?template=sweep',
		'/trials/1',
		'/trials/2',
		'/trials/3',
		'/loads',
		'/loads/6',
		'/workshop',
		'/workshop/conditions/new',
		'/nowhere'
	];
	for (const scheme of ['light', 'dark'] as const)
		it(`is accessible on every screen (axe, WCAG 2.2 AA, ${scheme})`, async () => {
			await page.emulateMedia({ colorScheme: scheme });
			for (const path of PAGES) {
				await page.goto(app.url + path);
				expect(await violations(), path).to.deep.equal([]);
			}
			await page.emulateMedia({ colorScheme: 'light' });
		});

	it('fits 400 px without scrolling sideways', async () => {
		await page.setViewportSize({ width: 400, height: 800 });
		for (const path of PAGES) {
			await page.goto(app.url + path);
			const width = await page.evaluate(() => document.documentElement.scrollWidth);
			expect(width, path).to.be.at.most(400);
		}
		await page.setViewportSize({ width: 1280, height: 800 });
	});

	it('shows the demonstration’s answer and leads from it to the evidence', async () => {
		await page.goto(app.url);
		await page.getByRole('link', { name: 'Did adding the chat make the timetable slower?' }).click();
		const answer = page.locator('#answer');
		await answer.getByRole('heading', { name: 'Phone' }).waitFor();
		expect(await answer.getByText('Total Blocking Time:').first().innerText()).to.match(
			/“With Parlour Bell” is slower than “Without chat”: \d+\sms against \d+\sms/
		);
		await page.locator('#shifts select').selectOption('tbt');
		await page.getByRole('heading', { name: 'Loads and shift: Total Blocking Time' }).waitFor();
		expect(page.url()).to.include('metric=tbt');
		const rows = page.locator('#loads tbody tr');
		expect(await rows.count()).to.equal(44);
		await page.locator('#loads').getByLabel('Conditions').selectOption('phone');
		expect(await rows.count()).to.equal(22);
		await page
			.getByRole('link', { name: /^Evidence/ })
			.last()
			.click();
		await page.getByRole('heading', { name: 'Page picture' }).waitFor();
		await page.getByPlaceholder('Address, type, status').fill('bell.js');
		await page.getByText(/^[01] of \d+$/).waitFor();
		expect(await page.locator('#timeline [data-row]').count()).to.be.at.most(1);
		const seen = await page.locator('#picture img').evaluate((image: HTMLImageElement) => image.naturalWidth);
		expect(seen).to.be.above(300);
	});

	it('keeps what was typed and says what is wrong at the field', async () => {
		await page.goto(`${app.url}/trials/new`);
		await page.waitForTimeout(300);
		await page.getByLabel('Name of arm 2').fill('With chat');
		await page.getByLabel('Address of arm 1').fill('https://skerry-line.test/');
		await page.getByLabel('Address of arm 2').fill('skerry-line');
		await page.getByRole('checkbox', { name: /Look after 10/ }).uncheck();
		await page.getByLabel('Rounds', { exact: true }).fill('500');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByText('This is not a web address').waitFor();
		expect(await page.getByText('Write the question that the trial shall answer.').count()).to.equal(1);
		expect(await page.getByText('Rounds must be a whole number from 1 to 100.').count()).to.equal(1);
		expect(await page.getByLabel('Address of arm 2').inputValue()).to.equal('skerry-line');
		expect(await page.getByLabel('Name of arm 2').inputValue()).to.equal('With chat');
		expect(await violations()).to.deep.equal([]);
	});

	it('takes a question through the lab to an answer, live', async () => {
		await page.goto(`${app.url}/trials/new`);
		await page.waitForTimeout(300);
		await page.getByLabel('What do you want to know?').fill('Is the home page lighter than the timetable?');
		await page.getByLabel('Name of arm 1').fill('Timetable');
		await page.getByLabel('Address of arm 1').fill('https://skerry-line.test/timetable');
		await page.getByLabel('Name of arm 2').fill('Home');
		await page.getByLabel('Address of arm 2').fill('https://skerry-line.test/');
		await page.getByRole('checkbox', { name: /Phone/ }).uncheck();
		await page.getByRole('checkbox', { name: /Look after 10/ }).uncheck();
		await page.getByRole('checkbox', { name: /Wait until the served page/ }).uncheck();
		await page.getByLabel('Rounds', { exact: true }).fill('1');
		await page.getByLabel('Warm-ups', { exact: true }).fill('0');
		await page.getByText('2 loads,').waitFor();
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByRole('heading', { name: 'Is the home page lighter than the timetable?' }).waitFor();
		await page.getByRole('button', { name: 'Stop' }).waitFor();
		// Without reloading: the sheet follows the lab.
		await page.getByRole('button', { name: 'Print for the client' }).waitFor({ timeout: 200_000 });
		await page.getByText(/Bytes transferred: undecided after 1 round/).waitFor();
		expect(await page.locator('#loads tbody tr').count()).to.equal(2);
	});

	it('stops a trial and goes on with it', async () => {
		const { body } = await app.api('POST', '/api/trials', {
			question: 'Can it be stopped?',
			kind: 'side-by-side',
			arms: [
				{ name: 'A', url: 'https://skerry-line.test/' },
				{ name: 'B', url: 'https://skerry-line.test/timetable' }
			],
			conditions: ['desktop'],
			rounds: 20,
			warmups: 0
		});
		await page.goto(`${app.url}/trials/${body.id}`);
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByRole('button', { name: 'Stop' }).click();
		await page.getByText('Stopped by the analyst.').waitFor();
		await page.getByRole('button', { name: 'Go on' }).waitFor();
		await page.getByRole('button', { name: 'Delete this trial…' }).click();
		await page.getByText('This cannot be undone.').waitFor();
		await page.getByRole('button', { name: 'Delete for good' }).click();
		await page.getByRole('heading', { name: 'Trials' }).waitFor();
		expect((await app.api('GET', `/api/trials/${body.id}`)).status).to.equal(404);
	});

	it('is driven by keys, and keeps its filters in the address', async () => {
		await page.goto(`${app.url}/trials`);
		await page.getByRole('button', { name: 'Keys' }).waitFor();
		await page.waitForTimeout(300);
		await page.keyboard.press('/');
		await page.keyboard.type('two looks');
		await page.waitForURL(/q=two\+looks/);
		await page.getByText(/^1 of \d+$/).waitFor();
		expect(await page.locator('tbody tr').count()).to.equal(1);
		await page.evaluate(() => (document.activeElement as HTMLElement).blur());
		await page.keyboard.press('j');
		await page.keyboard.press('Enter');
		await page.getByRole('heading', { name: 'How far apart are two looks at the same home page?' }).waitFor();
		await page.keyboard.press('?');
		await page.getByRole('dialog').waitFor();
		await page.keyboard.press('Escape');
		await page.keyboard.press('n');
		await page.getByRole('heading', { name: 'New trial' }).waitFor();
	});

	it('chooses a client and shows only what is theirs', async () => {
		await page.goto(`${app.url}/trials`);
		await page.getByLabel('Client').selectOption({ label: 'Orrery Hall' });
		await page.getByText('No trials here yet').waitFor();
		await page.getByLabel('Client').selectOption({ label: 'All clients' });
		await page.getByRole('link', { name: 'Did adding the chat' }).waitFor();
	});

	it('prints the top of the sheet as one page for the client', async () => {
		await page.goto(`${app.url}/trials/1`);
		await page.emulateMedia({ media: 'print' });
		expect(await page.locator('#loads').isVisible()).to.equal(false);
		expect(await page.locator('nav.rail').isVisible()).to.equal(false);
		expect(await page.locator('#answer').isVisible()).to.equal(true);
		const pdf = (
			await page.pdf({
				format: 'A4',
				printBackground: true,
				margin: { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' }
			})
		).toString('latin1');
		await page.emulateMedia({ media: 'screen' });
		expect(pdf.match(/\/Type\s*\/Page\b/g)).to.have.length(1);
	});

	it('carries at most 130 kB of script and 45 kB of style to the sheet (gzipped), and asks nobody outside', async () => {
		const context = await browser.newContext();
		const fresh = await context.newPage();
		const sizes = { script: 0, stylesheet: 0 };
		const weighing: Promise<void>[] = [];
		fresh.on('response', (response) => {
			const kind = response.request().resourceType() as keyof typeof sizes;
			if (kind in sizes) weighing.push(response.body().then((body) => void (sizes[kind] += gzipSync(body).length)));
		});
		await fresh.goto(`${app.url}/trials/1`, { waitUntil: 'load' });
		await fresh.waitForTimeout(500);
		await Promise.all(weighing);
		await context.close();
		expect(sizes.script).to.be.within(10_000, 130_000);
		expect(sizes.stylesheet).to.be.within(5_000, 45_000);
		expect(
			asked.filter((url) => !url.startsWith(app.url) && !url.startsWith('data:') && !url.startsWith('blob:'))
		).to.deep.equal([]);
		expect(troubles).to.deep.equal([]);
	});
});
