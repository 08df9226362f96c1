import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';

describe('pages over time and against competitors', function () {
	this.timeout(240_000);
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

	it('lists watched pages with figures, bands and what moved, and filters them in the address', async () => {
		const { page } = screen;
		await screen.go('/watch');
		// What was called stands first, also where its size is open.
		const news = page.getByRole('region', { name: 'Moved in the last four weeks' });
		await news.getByRole('link', { name: 'skerry-line.test/timetable' }).waitFor();
		const booking = page.getByRole('row', { name: /\/booking/ });
		await booking.getByText('phone', { exact: true }).first().waitFor();
		expect(await booking.locator('.strip').count()).to.equal(2);
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByLabel('Change since', { exact: true }).selectOption('start');
		await page.waitForURL(/since=start/);
		await page.getByPlaceholder('Address, watch or client').fill('timetable');
		await page.waitForURL(/words=timetable/);
		expect(await page.locator('tbody tr').count()).to.equal(1);
	});

	it('tells a page’s history: what moved between which days, beside what was released, and where the lab changed', async () => {
		const { page } = screen;
		await screen.go('/watch');
		await page.getByRole('link', { name: '/timetable', exact: true }).click();
		await page.getByRole('heading', { name: '/timetable', exact: true }).waitFor();
		await page.getByRole('heading', { name: 'What moved' }).waitFor();
		const story = await page.locator('main').innerText();
		// The truth of the scenario: the chat made the timetable slower, and the browser was updated later.
		expect(story).to.match(/\/timetable \(phone\) (got worse|changed), between \d+ \w+ 2026 and \d+ \w+ 2026/);
		expect(story).to.include('Released in this time: Parlour Bell, the chat, on every page');
		expect(story).to.match(/The browser changed: what that did to the control page is taken off/);
		expect(story).to.match(/scheduled readings before this did not take place/);
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByRole('tab', { name: 'Desktop' }).click();
		await page.getByLabel('Metric', { exact: true }).selectOption('wire');
		await page.getByText(/^Bytes transferred, .*: the middle of each reading/).waitFor();
	});

	it('is set up in a form that says what is wrong, and reads at once', async () => {
		const { page } = screen;
		await screen.go('/watch/new');
		await page.locator('main').getByLabel('Client', { exact: true }).selectOption({ label: 'Skerry Line' });
		await page.getByLabel('When', { exact: true }).selectOption('pattern');
		await page.getByLabel('Pattern: minute, hour, day, month, weekday').fill('often');
		await page.getByRole('button', { name: 'Watch these pages' }).click();
		await page.getByText('Give it a name.').waitFor();
		await page.getByText(/A pattern has five fields/).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByLabel('Name', { exact: true }).fill('Two mornings a week');
		await page.getByLabel('Pattern: minute, hour, day, month, weekday').fill('30 6 * * 1,4');
		await page.getByRole('button', { name: 'Watch these pages' }).click();
		await page.getByRole('heading', { name: 'Two mornings a week' }).waitFor();
		await page.getByText(/\d+ of \d+ loads/).waitFor();
		await page.getByRole('button', { name: 'Stop this reading' }).click();
		await page.getByRole('button', { name: 'Read now' }).waitFor({ timeout: 90_000 });
		await page.getByRole('button', { name: 'Pause' }).click();
		await page.getByText('Paused.').waitFor();
	});

	it('ranks the own page among competitors under every metric, with what they do', async () => {
		const { page } = screen;
		await screen.go('/standings');
		await page.getByRole('link', { name: 'Timetables of the ferry companies' }).click();
		await page.getByText(/^Skerry Line is (first|second|third).* of three in Largest Contentful Paint/).waitFor();
		expect(await page.getByRole('table', { name: 'Places by metric' }).getByRole('row').count()).to.be.above(6);
		expect(await page.getByRole('table', { name: 'Practices' }).getByRole('row').count()).to.equal(12);
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByLabel('Metric', { exact: true }).selectOption('wire');
		await page.getByText(/^Bytes transferred, .*: the middle of each run/).waitFor();
	});

	it('comes to a report, in the client’s words', async () => {
		const made = await app.api('POST', '/api/reports', { clientId: 1, title: 'Over time' });
		const { body: watches } = await app.api('GET', '/api/watches?client=1');
		const { body: standings } = await app.api('GET', '/api/standings?client=1');
		const recorded = watches.watches.find(({ name }: { name: string }) => name === 'Pages that bring bookings');
		const { body: report } = await app.api('GET', `/api/reports/${made.body.id}`);
		const blocks = [
			{ id: 'w', kind: 'watch', watch: recorded.id },
			{ id: 's', kind: 'standing', watch: standings.standings[0].id }
		];
		const saved = await app.api('PATCH', `/api/reports/${made.body.id}`, {
			revision: report.revision,
			draft: { ...report.draft, blocks }
		});
		expect(saved.status, JSON.stringify(saved.body)).to.equal(200);
		await screen.go(`/reports/${made.body.id}`);
		const preview = screen.page.locator('article.report');
		await preview.getByRole('heading', { name: 'Over time', level: 2 }).waitFor();
		expect(await preview.innerText()).to.match(/\/timetable, .*: between \d+ \w+ 2026 and \d+ \w+ 2026/);
		expect(await preview.innerText()).to.match(/1(–2)? of 3/);
	});
});
