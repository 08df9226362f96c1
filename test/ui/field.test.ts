import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';

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
		await page.getByRole('row', { name: /\/contact.*desktop.*the whole origin/ }).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('is filtered, in the address', async () => {
		const { page } = screen;
		await page.getByLabel('Assessment', { exact: true }).selectOption('does-not');
		await page.waitForURL(/is=does-not/);
		await page.getByLabel('Device', { exact: true }).selectOption('phone');
		await page.waitForURL(/device=phone/);
		const rows = await page.locator('tbody tr').allInnerTexts();
		expect(rows.length).to.be.above(0);
		for (const row of rows) expect(row).to.match(/phone[\s\S]*does not pass/);
	});

	it('shows a page’s histogram and its windows, with what they share', async () => {
		const { page } = screen;
		await screen.go('/field?client=1');
		await page.getByRole('link', { name: '/timetable', exact: true }).first().click();
		await page.getByRole('heading', { name: '/timetable' }).waitFor();
		await page.getByText(/Figures of this page, \d+ \w+ 2026 to/).waitFor();
		expect(await page.getByRole('heading', { level: 2, name: 'Largest Contentful Paint' }).count()).to.equal(1);
		expect(await page.getByText(/% of the visits had it good/).count()).to.be.above(2);
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByRole('tab', { name: 'Desktop' }).click();
		await page.getByText(/^On desktops:/).waitFor();
	});
});
