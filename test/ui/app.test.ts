import { expect } from 'chai';
import { gzipSync } from 'node:zlib';
import { startApp, type TestApp } from '../support/app';
import { until } from '../support/world';
import { sampleOf } from '../support/sample';
import { COLOUR_RULES, openScreen, type Screen } from '../support/screen';
import { PAGES } from '../support/uiPages';
import { walkByTab } from '../support/walkByTab';

/** Rows of lists that the tab key walks through on its way. */
const MOST_LISTED = 150;

const SETTLING_MS = 400;

describe('interface', () => {
	let app: TestApp;
	let screen: Screen;
	before(async () => {
		app = await startApp({ demo: true });
		// Evidence is worked out by the lab once the app has started.
		const isThere = async () => !(await app.api('GET', '/api/trials/1/evidence')).body.pending;
		await until(isThere, 90_000, 'the evidence');
		screen = await openScreen(app);
	});
	after(async () => {
		await screen?.close();
		await app?.end();
	});

	beforeEach(async () => {
		await screen.page.setViewportSize({ width: 1280, height: 800 });
		await screen.page.emulateMedia({ colorScheme: 'light', media: 'screen', reducedMotion: null });
	});

	/** Until no colour changes over any more. */
	const settledColours = async () => {
		await screen.page.evaluate(async () => {
			await new Promise((next) => requestAnimationFrame(() => requestAnimationFrame(next)));
			await Promise.all(document.getAnimations().map(({ finished }) => finished.catch(() => undefined)));
		});
		// A chart that was drawn a moment ago takes its colours a frame or two later.
		await screen.page.waitForTimeout(SETTLING_MS);
	};

	/** A sheet whose evidence comes in the middle of a look moves under it. */
	async function evidenceIsThere(): Promise<void> {
		for (const id of [1, 2, 3, 4])
			await until(
				async () => (await app.api('GET', `/api/trials/${id}/evidence`)).body.pending === false,
				60_000,
				`the evidence of trial ${id}`
			);
	}

	it('is accessible on every screen (axe, WCAG 2.2 AA), light, dark, and at 400 px without scrolling sideways', async () => {
		const { page } = screen;
		await evidenceIsThere();
		const [dark, narrow] = [sampleOf(PAGES, 12), sampleOf(PAGES, 16)];
		for (const path of PAGES) {
			await page.setViewportSize({ width: 1280, height: 800 });
			// Colours that are still changing over have no contrast to speak of.
			await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
			const answer = await page.goto(app.url + path);
			expect(answer!.status(), path).to.equal(path === '/nowhere' ? 404 : 200);
			expect(await screen.violations(), path).to.deep.equal([]);
			if (dark.includes(path)) {
				await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
				await settledColours();
				expect(await screen.violations('html', COLOUR_RULES), `${path}, dark`).to.deep.equal([]);
			}
			await page.setViewportSize({ width: 400, height: 800 });
			const width = await page.evaluate(() => document.documentElement.scrollWidth);
			expect(width, path).to.be.at.most(400);
			if (narrow.includes(path)) expect(await screen.violations(), `${path}, 400 px`).to.deep.equal([]);
		}
	});

	it('shows the demonstration’s answer in one look and leads from it to the evidence', async () => {
		const { page } = screen;
		await screen.go('/trials');
		await page.getByRole('link', { name: 'Did adding the chat make the timetable slower?' }).click();
		const answer = page.locator('#answer');
		await answer
			.getByText(/^“With Parlour Bell” is slower in blocking time, heavier and less stable than “Without chat”\.$/)
			.waitFor();
		const board = answer.getByRole('table', { name: 'With Parlour Bell, Phone' });
		const row = board.getByRole('row', { name: /^Blocking time/ });
		expect(await row.innerText()).to.match(/0\sms\s+\d{3}\sms\s+slower/);
		// The interval is told on hover, and to who cannot see the drawing.
		await row.hover();
		await answer
			.locator('.readout')
			.getByText(/^Total Blocking Time: “With Parlour Bell” is slower than .*more \(between /)
			.waitFor();
		expect(await answer.getByRole('table', { name: /What each variant showed/ }).count()).to.equal(2);
		// A closed sheet is at most three screens long.
		expect(await page.evaluate(() => document.documentElement.scrollHeight)).to.be.at.most(2400);
		// A row leads to the loads behind it.
		await row.getByRole('link').click();
		await page.waitForURL(/metric=tbt&open=shifts/);
		await page.locator('#shifts section svg').first().waitFor();
		const loads = await screen.openPart('loads');
		const rows = loads.locator('tbody tr');
		expect(await rows.count()).to.equal(25);
		await loads.getByLabel('Conditions').selectOption('phone');
		const { body: trial } = await app.api('GET', '/api/trials/1');
		expect(await rows.count()).to.equal(
			trial.loads.filter((load: { condition: string }) => load.condition === 'phone').length
		);
		expect(page.url()).to.match(/open=shifts(,|%2C)loads/);
		await page
			.getByRole('link', { name: /^Evidence/ })
			.last()
			.click();
		await page.getByText(/^The largest paint \(/).waitFor();
		await page.getByPlaceholder('Address, type, status').fill('bell.js');
		await page.getByText(/^[01] of \d+$/).waitFor();
		expect(await page.locator('#timeline [data-row]').count()).to.be.at.most(1);
		const picture = (await screen.openPart('picture')).locator('img');
		expect(await picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).to.be.above(300);
	});

	it('calls no gain what a timer puts off, and shows what became of each owner’s requests', async () => {
		const { page } = screen;
		await screen.go('/trials');
		await page.getByRole('link', { name: 'Is the timetable faster when the chat starts by a timer?' }).click();
		const answer = page.locator('#answer');
		await answer
			.getByText(/^Only at first\. In one load what “Chat by a timer” saves in .* came back by itself/)
			.first()
			.waitFor();
		const board = answer.getByRole('table', { name: 'Chat by a timer, Phone' });
		expect(await board.innerText()).to.match(/comes back later/);
		const late = await screen.openPart('held');
		const fates = late.getByRole('table', { name: 'What became of each owner’s requests' });
		expect(await fates.getByRole('row', { name: /parlour-bell\.test/ }).innerText()).to.match(/postponed, at \d/);
		await late.getByRole('link', { name: 'Evidence' }).first().click();
		await page.getByRole('button', { name: /^What comes late/ }).waitFor();
		expect(screen.troubles).to.deep.equal([]);
	});

	it('says how calm the machine is and what it can see, and measures the noise floor at one press', async () => {
		const { page } = screen;
		await screen.go('/workshop');
		await page.getByRole('link', { name: /^How calm this machine is/ }).click();
		await page.getByRole('heading', { name: 'The lab' }).waitFor();
		await page.getByText(/^This machine is (fit|noisy|too noisy)/).waitFor();
		const floors = page.getByRole('table', { name: 'Noise floor by conditions' });
		expect(await floors.getByRole('row', { name: /^Phone/ }).innerText()).to.match(/Score .*, LCP/);
		await page.getByLabel('Page to load against itself').fill('not an address');
		await page.getByRole('button', { name: 'Measure the noise floor' }).click();
		await page.getByText(/This is not a web address/).waitFor();
		expect(await page.getByLabel('Page to load against itself').inputValue()).to.equal('not an address');
		await page.getByLabel('Page to load against itself').fill('https://skerry-line.test/contact');
		await page.getByRole('button', { name: 'Measure the noise floor' }).click();
		await page.getByRole('heading', { name: /How far apart are two runs of the same page on this machine/ }).waitFor();
		for (const name of ['Stop', 'Stop it']) await page.getByRole('button', { name, exact: true }).click();
		await page.getByText(/Stopped by the analyst/).waitFor();
	});

	it('shows the machine beside a load, and what further loads of its page would show', async () => {
		const { page } = screen;
		await screen.go('/loads/6');
		await page.getByRole('img', { name: /^Other programs and machines took \d+/ }).waitFor();
		const checks = await screen.openPart('checks');
		expect(await checks.innerText()).to.match(/The page asks .*stilewatch\.test/);
		await checks.getByRole('button', { name: /3 s late, refusing and silent/ }).waitFor();
		await checks.getByRole('button', { name: 'Load it as a visitor’s browser' }).waitFor();
		const conditions = await screen.openPart('circumstances');
		expect(await conditions.innerText()).to.match(/Real way\s+with-chat\.skerry-line\.test .* of 110\sms wanted/);
	});

	it('speaks in its parts of the conditions that were chosen', async () => {
		await screen.go('/trials/1?open=why');
		const why = screen.page.locator('#why');
		await why.getByText('“With Parlour Bell” against “Without chat”, Phone.').waitFor();
		await screen.page.getByLabel('Evidence under').selectOption('desktop');
		await why.getByText('“With Parlour Bell” against “Without chat”, Desktop.').waitFor();
	});

	it('opens the parts that the address names, by the server too', async () => {
		const html = await (await fetch(`${app.url}/trials/1?open=why`)).text();
		expect(html).to.include('Files: ');
		await screen.page.goto(`${app.url}/trials/1#fairness`);
		await screen.page.getByRole('table', { name: /^Fairness of/ }).waitFor();
	});

	it('finds everything by one search, by keyboard', async () => {
		const { page } = screen;
		await screen.go('/workshop');
		await page.keyboard.press('/');
		await page.keyboard.type('timetable');
		const found = page.getByRole('list', { name: 'Found' });
		await found.getByRole('link', { name: /^Trial.*Did adding the chat/ }).waitFor();
		expect(await screen.violations('.search-box')).to.deep.equal([]);
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('Enter');
		// Pages are found before trials.
		await page.waitForURL(/\/pages\?site=\d+&q=%2Ftimetable$/);
		await page.getByRole('link', { name: '/timetable', exact: true }).waitFor();
		await page.keyboard.press('/');
		await page.keyboard.type('orrery');
		await found.getByText('Orrery Hall').first().waitFor();
		await page.keyboard.press('Escape');
		expect(await found.count()).to.equal(0);
		await screen.go('/search?q=orrery');
		await page.getByText(/found for “orrery”/).waitFor();
	});

	it('is driven by keys, and keeps its filters in the address', async () => {
		const { page } = screen;
		await screen.go('/trials');
		await page.getByPlaceholder('Question, client or address').fill('same home');
		await page.waitForURL(/q=same\+home/);
		await page.getByText(/^1 of \d+$/).waitFor();
		expect(await page.locator('tbody tr').count()).to.equal(1);
		await page.evaluate(() => (document.activeElement as HTMLElement).blur());
		await page.keyboard.press('j');
		await page.keyboard.press('Enter');
		await page.getByRole('heading', { name: 'How far apart are two runs of the same home page?' }).waitFor();
		await page.keyboard.press('?');
		const keys = page.getByRole('dialog', { name: 'Keys' });
		await keys.waitFor();
		await page.keyboard.press('Escape');
		await keys.waitFor({ state: 'hidden' });
		await page.keyboard.press('n');
		await page.getByRole('heading', { name: 'New trial' }).waitFor();
	});

	it('reaches every control of every screen by the tab key, with a visible focus', async () => {
		const { page } = screen;
		for (const path of [
			'/',
			'/trials',
			'/trials/1',
			'/loads',
			'/loads/6',
			'/workshop',
			'/trials/new?template=noise',
			'/clients/1',
			'/clients/1/change',
			'/clients/1/sites/1',
			'/pages?site=1',
			'/workshop/components/3'
		]) {
			await screen.go(path);
			const { expected } = await page.evaluate(walkByTab, 'start' as const);
			expect(expected, path).to.be.above(3);
			for (let i = 0; i < expected + MOST_LISTED; i++) {
				await page.keyboard.press('Tab');
				const { isEnd } = await page.evaluate(walkByTab, 'note' as const);
				if (isEnd) break;
			}
			const walk = await page.evaluate(walkByTab, 'end' as const);
			expect(walk.missing, path).to.deep.equal([]);
			expect(walk.unseen, `${path}: focus that is not drawn`).to.deep.equal([]);
		}
	});

	it('chooses a client and shows only what is theirs', async () => {
		const { page } = screen;
		await app.api('POST', '/api/clients', { name: 'Tolcarne Lights' });
		await screen.go('/trials');
		await page.getByLabel('Client', { exact: true }).selectOption({ label: 'Tolcarne Lights' });
		await page.getByText('No trials here yet').waitFor();
		await page.getByLabel('Client', { exact: true }).selectOption({ label: 'All clients' });
		await page.getByRole('link', { name: 'Did adding the chat' }).waitFor();
	});

	it('prints the top of the sheet as one page for the client', async () => {
		const { page } = screen;
		await page.goto(`${app.url}/trials/1?open=arms,method`);
		await page.emulateMedia({ media: 'print' });
		expect(await page.locator('#loads').isVisible()).to.equal(false);
		expect(await page.locator('nav.rail').isVisible()).to.equal(false);
		expect(await page.locator('#answer').isVisible()).to.equal(true);
		for (const open of ['#arms', '#method']) expect(await page.locator(open).isVisible()).to.equal(true);
		const margin = { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' };
		const pdf = (await page.pdf({ format: 'A4', printBackground: true, margin })).toString('latin1');
		await page.emulateMedia({ media: 'screen' });
		expect(pdf.match(/\/Type\s*\/Page\b/g)).to.have.length(1);
	});

	it('copies a chart as CSV, SVG or PNG from one small menu', async () => {
		const { page } = screen;
		await screen.go('/trials/1');
		await page.getByRole('button', { name: 'Copy this chart' }).first().click();
		const names = await page.getByRole('menuitem').allInnerTexts();
		expect(names.map((name) => name.trim())).to.deep.equal(['Copy as CSV', 'Copy as SVG', 'Save as PNG']);
		const saved = page.waitForEvent('download');
		await page.getByRole('menuitem', { name: 'Save as PNG' }).click();
		expect((await saved).suggestedFilename()).to.equal('shift-board.png');
	});

	it('carries at most 170 kB of script and 60 kB of style to the sheet (gzipped), and asks nobody outside', async () => {
		const context = await screen.browser.newContext();
		const fresh = await context.newPage();
		const sizes = { script: 0, stylesheet: 0 };
		const weighing: Promise<void>[] = [];
		fresh.on('response', (response) => {
			const kind = response.request().resourceType() as keyof typeof sizes;
			if (kind in sizes) weighing.push(response.body().then((body) => void (sizes[kind] += gzipSync(body).length)));
		});
		await fresh.goto(`${app.url}/trials/1`, { waitUntil: 'load' });
		await fresh.waitForLoadState('networkidle');
		await Promise.all(weighing);
		await context.close();
		expect(sizes.script).to.be.within(10_000, 170_000);
		expect(sizes.stylesheet).to.be.within(5_000, 60_000);
		const isOwn = (url: string) => [app.url, 'data:', 'blob:'].some((start) => url.startsWith(start));
		expect(screen.requested.filter((url) => !isOwn(url))).to.deep.equal([]);
		expect(screen.troubles).to.deep.equal([]);
	});
});
