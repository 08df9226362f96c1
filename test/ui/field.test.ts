import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';
import { aBeacon } from '../support/visits';

const beaconOf = (key: string) => aBeacon(undefined, { key });

describe('what real visitors had', function () {
	this.timeout(180_000);
	let app: TestApp;
	let screen: Screen;
	before(async () => {
		app = await startApp({ demo: true });
		screen = await openScreen(app);
	});
	after(async () => {
		expect(screen?.troubles).to.deep.equal([]);
		await screen?.close();
		await app?.end();
	});

	it('is asked of the panel at one press, and told page by page with its scope', async () => {
		const { page } = screen;
		await screen.go('/field?client=1');
		await page.getByRole('button', { name: 'Ask the panel' }).click();
		const timetable = page.getByRole('row', { name: /\/timetable.*phone/ });
		await timetable.getByText('this page').waitFor({ timeout: 90_000 });
		await page.getByText(/^On phones \d+ of 6 pages/).waitFor();
		// The contact page is too quiet for figures of its own on desktops.
		await page.getByRole('row', { name: /\/contact.*desktop.*all pages of the site/ }).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('is filtered, in the address', async () => {
		const { page } = screen;
		await page.getByLabel('Core Web Vitals', { exact: true }).selectOption('does-not');
		await page.waitForURL(/is=does-not/);
		await page.getByLabel('Device', { exact: true }).selectOption('phone');
		await page.waitForURL(/device=phone/);
		const rows = await page.locator('tbody tr').allInnerTexts();
		expect(rows.length).to.be.above(0);
		for (const row of rows) expect(row).to.match(/phone[\s\S]*misses (LCP|INP|CLS)/);
	});

	it('shows a page’s histogram and its windows, with what they share', async () => {
		const { page } = screen;
		await screen.go('/field?client=1');
		await page.getByRole('link', { name: '/timetable', exact: true }).first().click();
		await page.getByRole('heading', { name: '/timetable' }).waitFor();
		await page.getByText(/Figures of this page, from (the panel|own visits), \d+ \w+ 2026 to/).waitFor();
		expect(await page.getByRole('heading', { level: 2, name: 'Largest Contentful Paint' }).count()).to.equal(1);
		expect(await page.getByText(/% of the visits had it good/).count()).to.be.above(2);
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByRole('tab', { name: 'Desktop' }).click();
		await page.getByText(/^On desktops:/).waitFor();
	});

	it('tells what a release did, with its interval, and what other pages did meanwhile', async () => {
		const { page } = screen;
		await screen.go('/field/2');
		// The truth of the simulated visitors: INP on the timetable went up by 30 % on that day, nothing else changed.
		const board = page.getByRole('table', { name: /What “The timetable filters as one types” did .* phones/ });
		const row = board.getByRole('row', { name: /^INP/ });
		// Worked out in the thread for heavy work.
		await row.waitFor({ timeout: 120_000 });
		const inp = await row.innerText();
		expect(inp).to.match(/less responsive/);
		expect(inp).to.match(/ms more \(between \d+\sms more and \d+\sms more\), \d+\s% of/);
		expect(inp).to.match(/Other pages meanwhile: .*, taken off/);
		const [low, high] = /between (\d+)\sms more and (\d+)\sms/.exec(inp)!.slice(1).map(Number);
		const before = Number(/% of (\d+)\sms/.exec(inp)![1]);
		expect(0.3 * before).to.be.within(low!, high!);
		expect(await board.getByRole('row', { name: /^LCP/ }).innerText()).to.match(/\t(undecided|same)\t/);
		await page.getByText(/^28 days before against 28 after, from own visits/).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('takes a note of a release, says what is wrong with one, and that it is too soon to tell', async () => {
		const { page } = screen;
		await screen.go('/field/2');
		await page.getByLabel('Live since').fill('soon');
		await page.getByLabel('What was released').fill('New fares');
		await page.getByRole('button', { name: 'Note the release' }).click();
		await page.getByText('Write the day as 2026-11-27.').waitFor();
		expect(await page.getByLabel('What was released').inputValue()).to.equal('New fares');
		const lately = new Date(Date.now() - 5 * 86_400_000).toISOString().slice(0, 10);
		await page.getByLabel('Live since').fill(lately);
		await page.getByRole('button', { name: 'Note the release' }).click();
		await page
			.getByRole('table', { name: /New fares/ })
			.getByText(/^Too soon to tell: about \d+ more days/)
			.first()
			.waitFor();
		await page.getByRole('button', { name: 'Remove New fares' }).click();
		await page.getByRole('table', { name: /New fares/ }).waitFor({ state: 'detached' });
	});

	it('sets goals beside speed as an association, and custom timings with their bands', async () => {
		const { page } = screen;
		await screen.go('/field/3');
		const goals = page.getByRole('table', { name: '“booked” by speed' });
		expect(await goals.getByRole('row', { name: /^good/ }).innerText()).to.match(/\d\.\d\s%/);
		await page.getByText(/^An association, and no proof/).waitFor();
		await screen.go('/field/2');
		const timings = page.getByRole('table', { name: 'Custom timings' });
		expect(await timings.innerText()).to.match(
			/timetable-ready\s+[\d,]+\s+\d\.\d\d\ss\s+(good|needs improvement|poor)/
		);
	});

	it('is seen live, with the script’s tag, what is not counted, and a check of one page', async () => {
		const { page } = screen;
		// A visitor comes just now: what the script carries, its beacon carries, too.
		const script = await (await fetch(`${app.url}/visit/zafra.js?site=demo-skerry-line`)).text();
		const token = /"token":"([^"]+)"/.exec(script)![1]!;
		const came = await fetch(`${app.url}/visit`, {
			method: 'POST',
			headers: { origin: 'https://www.skerry-line.test', 'user-agent': 'Mozilla/5.0 (X11) Chrome/156.0.0.0' },
			body: JSON.stringify(aBeacon(undefined, { key: 'demo-skerry-line', token }))
		});
		expect(came.status).to.equal(204);
		await screen.go('/field/visits?site=1');
		await page.getByText(/^The script works:/).waitFor();
		await page.getByRole('table', { name: 'The newest page views' }).getByText('2.10 s').first().waitFor();
		await page.getByText(/zafra\.js\?site=demo-skerry-line/).waitFor();
		await page.getByLabel('Path of the page').fill('/nowhere-at-all');
		await page.getByRole('button', { name: 'Check' }).click();
		await page.getByText('No page view of /nowhere-at-all has come.').waitFor();
		await page.getByLabel('Path of the page').fill('/timetable');
		await page.getByRole('button', { name: 'Check' }).click();
		await page.getByText(/^The script was seen in \d+ page views of \/timetable/).waitFor();
		const sent = await fetch(`${app.url}/visit`, {
			method: 'POST',
			headers: { origin: 'https://elsewhere.test' },
			body: JSON.stringify({ ...beaconOf('demo-skerry-line') })
		});
		expect(sent.status).to.equal(403);
		await page.getByText(/^1: from a page of another host/).waitFor({ timeout: 15_000 });
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('has a script whose settings are refused at their field, and saved', async () => {
		const { page } = screen;
		await screen.go('/field/visits?site=1');
		await page.getByRole('button', { name: 'What the script reports' }).click();
		await page.getByLabel('Custom timings').fill('timetable-ready 2500 4500 150\nmenu 900 300');
		// The page goes on telling of visits meanwhile: what is typed stays.
		await page.waitForResponse((response) => response.url().includes('__data.json'), { timeout: 30_000 });
		expect(await page.getByLabel('Custom timings').inputValue()).to.match(/menu 900 300$/);
		await page.getByRole('button', { name: 'Save the script’s settings' }).click();
		await page.getByText(/^Line 2: Good must be below poor\./).waitFor();
		expect(await page.getByLabel('Custom timings').inputValue()).to.match(/menu 900 300$/);
		await page.getByLabel('Custom timings').fill('timetable-ready 2500 4500 150\nmenu 300 900');
		await page.getByRole('button', { name: 'Save the script’s settings' }).click();
		await page.getByText('The script’s settings are saved.').waitFor();
		const { body } = await app.api('GET', '/api/visits/1');
		expect(body.source.settings.timings[1]).to.deep.equal({ name: 'menu', good: 300, poor: 900, margin: 100 });
		expect(body.source.settings.handOver.call).to.equal('stilewatch.note');
		// A site without a script has one made at one press.
		await screen.go('/field/visits?site=2');
		await page.getByRole('button', { name: 'Make the script tag' }).click();
		await page.getByRole('button', { name: 'Copy the script tag' }).waitFor();
	});
});
