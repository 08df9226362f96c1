import { expect } from 'chai';
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';

const HAR = {
	log: {
		version: '1.2',
		creator: { name: 'Some recorder', version: '3' },
		pages: [
			{
				startedDateTime: '2026-11-24T10:00:00.000Z',
				id: 'p',
				title: 'Imported page',
				pageTimings: { onContentLoad: 300, onLoad: 900 }
			}
		],
		entries: [
			{
				pageref: 'p',
				startedDateTime: '2026-11-24T10:00:00.000Z',
				time: 210,
				request: { method: 'GET', url: 'https://elsewhere.test/' },
				response: { status: 200, content: { mimeType: 'text/html', size: 5000 } },
				timings: { send: 1, wait: 180, receive: 29 }
			},
			{
				pageref: 'p',
				startedDateTime: '2026-11-24T10:00:00.250Z',
				time: 80,
				request: { method: 'GET', url: 'https://elsewhere.test/a.css' },
				response: { status: 200, content: { mimeType: 'text/css' } },
				timings: { send: 1, wait: 60, receive: 19 }
			}
		]
	}
};

describe('the analyst at work', () => {
	let app: TestApp;
	let screen: Screen;
	let page: Screen['page'];
	const folder = mkdtempSync(join(tmpdir(), 'zafra-ui-'));
	before(async () => {
		app = await startApp();
		screen = await openScreen(app);
		page = screen.page;
	});
	after(async () => {
		await screen?.close();
		await app?.end();
		rmSync(folder, { recursive: true });
	});
	const go = (path: string) => screen.go(path);
	const violations = () => screen.violations();

	it('copies conditions in the workshop, is told what is wrong, and mends it', async () => {
		await go('/workshop');
		await page.getByRole('link', { name: 'Copy Desktop' }).click();
		await page.getByLabel('Name', { exact: true }).fill('Quick desk');
		await page.getByLabel(/^Key/).fill('Quick Desk');
		await page.getByLabel(/Quiet for this long/).fill('0.6');
		await page.getByLabel(/Viewport width/).fill('20');
		await page.getByRole('button', { name: 'Save the conditions' }).click();
		await page.getByText(/small letters, digits and - only, for example/).waitFor();
		await page.getByText('The width must be a number from 200 to 3,840 px.').waitFor();
		expect(await page.getByLabel(/Quiet for this long/).inputValue()).to.equal('0.6');
		expect(await violations()).to.deep.equal([]);
		await page.getByLabel(/^Key/).fill('quick-desk');
		await page.getByLabel(/Viewport width/).fill('1000');
		await page.getByRole('button', { name: 'Save the conditions' }).click();
		await page.getByRole('link', { name: 'Quick desk', exact: true }).waitFor();
		const existing = (await app.api('GET', '/api/conditions')).body.map(({ id }: { id: string }) => id);
		expect(existing).to.include('quick-desk');
	});

	it('loads one page with steps and a nudge, and reads its sheet', async () => {
		await go('/loads');
		await page.getByLabel('Address').fill('https://hushed.skerry-line.test/');
		await page.getByLabel('Conditions').selectOption('quick-desk');
		await screen.tick(/Simulate interaction/, true);
		await page.getByRole('button', { name: 'Add the steps of a journey' }).click();
		await page.getByRole('button', { name: 'As JSON' }).click();
		await page.getByLabel('Steps of a journey').fill('[{"clik": "#menu"}]');
		await page.getByRole('button', { name: 'Load the page' }).click();
		await page.getByText(/Step 1: A step has one of the verbs/).waitFor();
		expect(await page.getByLabel('Address').inputValue()).to.equal('https://hushed.skerry-line.test/');
		await page
			.getByLabel('Steps of a journey')
			.fill('[{"expect": {"selector": "h1"}}, {"expect": {"text": "To be changed"}, "within": 300}]');
		// The same list, row by row.
		await page.getByRole('button', { name: 'As a list' }).click();
		await page.getByLabel('What, step 2').fill('Not to be found');
		await page.getByRole('button', { name: 'Load the page' }).click();
		// Without reloading: the load that ends opens by itself.
		await page.getByRole('button', { name: /^What comes late/ }).waitFor({ timeout: 60_000 });
		await screen.openPart('steps');
		await page
			.getByText(/Step 2, Expect the words “Not to be found”/)
			.first()
			.waitFor();
		await page.getByRole('img', { name: 'The page when step 2 failed' }).waitFor();
		expect(await (await screen.openPart('held')).innerText()).to.match(/Only then did the page start\s+\d+ requests/);
		expect(await violations()).to.deep.equal([]);
	});

	it('finds a request, opens it, and can link to what is on screen', async () => {
		await page.getByRole('searchbox', { name: 'Find requests' }).fill('skerry');
		await page.locator('#timeline').getByLabel('Order').selectOption('wire');
		await screen.tick('By owner', true);
		await page.locator('#timeline [data-row="1"]').click();
		await page
			.getByRole('region', { name: /Details of request/ })
			.getByText(/Headers: \d+ sent/)
			.waitFor();
		expect(page.url()).to.match(/#timeline&q=skerry&order=wire&by=owner&open=\d+/);
		const url = page.url();
		await page.goto('about:blank');
		await page.goto(url);
		await page.getByRole('region', { name: /Details of request/ }).waitFor();
		expect(await page.getByRole('searchbox', { name: 'Find requests' }).inputValue()).to.equal('skerry');
		await page.locator('#timeline [data-row="1"]').focus();
		await page.keyboard.press('ArrowDown');
		await page.waitForFunction(() => document.activeElement?.getAttribute('data-row') === '2');
	});

	it('plays the frames and steps through what moved', async () => {
		await (await screen.openPart('frames')).getByRole('button', { name: /Play/ }).click();
		await page
			.locator('#frames')
			.getByText(/\d+ % painted/)
			.first()
			.waitFor();
		const picture = (await screen.openPart('picture')).locator('img');
		expect(await picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).to.equal(1000);
		expect(screen.troubles).to.deep.equal([]);
	});

	it('reads a HAR from elsewhere and says what is not in it', async () => {
		await go('/loads');
		const bad = join(folder, 'bad.har');
		writeFileSync(bad, '{"log": {}}');
		await page.locator('input[type="file"]').setInputFiles(bad);
		await page.getByRole('button', { name: 'Read the file' }).click();
		await page.getByText(/This is not a HAR 1\.2 file/).waitFor();
		const good = join(folder, 'good.har');
		writeFileSync(good, JSON.stringify(HAR));
		await page.locator('input[type="file"]').setInputFiles(good);
		await page.getByRole('button', { name: 'Read the file' }).click();
		await page.getByRole('heading', { name: 'Imported page' }).waitFor();
		await page
			.getByText(/unknown conditions/)
			.first()
			.waitFor();
		expect(await page.locator('#timeline [data-row]').count()).to.equal(2);
		expect(await (await screen.openPart('figures')).innerText())
			.to.match(/What the HAR does not hold is unknown/)
			.and.not.match(/Largest Contentful Paint/);
		expect(await violations()).to.deep.equal([]);
	});

	it('takes a question from a template through pause, evidence, exclusion and further rounds', async () => {
		await go('/trials/new');
		await page.getByLabel('What do you want to know?').fill('Do the ads weigh much?');
		await page.getByLabel('Name of variant 2').fill('With ads');
		await page.getByLabel('Address of variant 1').fill('https://skerry-line.test/');
		await page.getByLabel('Address of variant 2').fill('https://with-ads.skerry-line.test/');
		await screen.tick(/^Phone/, false);
		await screen.tick(/^Desktop/, false);
		await screen.tick(/^Quick desk/, true);
		await screen.tick(/Look after 10/, false);
		await page.getByLabel('Rounds', { exact: true }).fill('2');
		await page.getByText(/Fewer than 6 rounds cannot show a difference/).waitFor();
		await page.getByLabel('Rounds', { exact: true }).fill('6');
		await page.getByText(/\d+ % of the largest paint, Quick desk/).waitFor();
		await page.getByText('More: metrics to decide on').click();
		for (const name of ['Score', 'Largest Contentful Paint', 'Cumulative Layout Shift', 'Total Blocking Time'])
			await screen.tick(name, false);
		await screen.tick(/^At the end, load each variant once/, false);
		await page.getByLabel('Warm-ups', { exact: true }).fill('0');
		const second = page.getByRole('group', { name: 'Variant 2' });
		await second.getByRole('button', { name: 'What it runs on' }).click();
		await second.getByRole('button', { name: 'Add a component' }).click();
		await second.getByLabel('Name', { exact: true }).fill('Hoarding Row');
		await second.getByLabel('Cost a month').fill('15');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByText(/[1-9] of \d+ loads,/).waitFor({ timeout: 90_000 });
		await page.getByText(/[3-9] of \d+ loads,/).waitFor({ timeout: 90_000 });
		await page.getByRole('button', { name: 'Pause' }).click();
		await page.getByText('Paused by the analyst.').waitFor();
		// Between looks there is no answer, and nothing that compares.
		await page
			.locator('#answer')
			.getByText(/The answer comes at the look after 6 rounds/)
			.waitFor();
		expect(await page.locator('#shifts, #table, #why').count()).to.equal(0);
		expect(await violations()).to.deep.equal([]);
		await page.getByRole('button', { name: 'Go on' }).click();
		await page.getByRole('button', { name: 'Repeat', exact: true }).waitFor({ timeout: 180_000 });
		await page
			.locator('#why')
			.getByText(/hoarding-row\.test was added/)
			.first()
			.waitFor({ timeout: 30_000 });
		await screen.openPart('why');
		expect(await (await screen.openPart('method')).innerText()).to.match(/Stable after \d+ fetches/);
		expect(await page.locator('#why').innerText()).to.match(/the parts add up to it/);
		expect(await (await screen.openPart('arms')).innerText()).to.match(/Hoarding Row \(plugin\): added/);
		await (await screen.openPart('frames')).getByRole('img').first().waitFor();
		expect(await violations()).to.deep.equal([]);

		await (
			await screen.openPart('loads')
		)
			.getByRole('link', { name: /^Exclude… load/ })
			.first()
			.click();
		await page.getByPlaceholder('Why?').fill('A delivery came');
		await page.locator('#loads').getByRole('button', { name: 'Exclude', exact: true }).click();
		await page.locator('#loads').getByText('excluded: A delivery came').waitFor();
		// The answer stays, and a second reading stands beside it.
		await page
			.locator('#answer')
			.getByText(/1\s+load is excluded and counted all the same/)
			.waitFor();
		await page.locator('#answer').getByText('“With ads” is heavier than').first().waitFor();
		await page
			.locator('#loads tr', { hasText: 'excluded: A delivery came' })
			.getByRole('button', { name: /^Include again/ })
			.click();
		await page
			.locator('#answer')
			.getByText(/counted all the same/)
			.waitFor({ state: 'detached' });

		const fairness = await screen.openPart('fairness');
		await fairness
			.getByRole('button', { name: /^Mark as intended/ })
			.first()
			.click();
		await fairness.getByRole('button', { name: /^Intended ✓/ }).waitFor();
		await page.locator('#method').getByLabel('Rounds to add').fill('1');
		await page.locator('#method').getByRole('button', { name: 'Add rounds' }).click();
		await page.getByRole('button', { name: 'Repeat', exact: true }).waitFor({ timeout: 60_000 });
		await page
			.locator('#method')
			.getByText(
				/Looked at after 6 rounds \(at most 4 % false calls by then\), 7 rounds \(at most 4\.5 % false calls by then\)/
			)
			.waitFor();
		await page.getByRole('button', { name: 'Repeat', exact: true }).click();
		await (await screen.openPart('repeats')).getByRole('link').waitFor();
		expect(screen.troubles).to.deep.equal([]);
	});

	it('measures a change in stages, with what was changed kept beside it', async () => {
		await go('/trials/new?template=change');
		await page.getByText('More: metrics to decide on').click();
		await screen.tick(/^At the end, load each variant once/, false);
		await page.getByLabel('Address', { exact: true }).fill('https://skerry-line.test/contact');
		await screen.tick(/^Phone/, false);
		await screen.tick(/^Desktop/, false);
		await screen.tick(/^Quick desk/, true);
		await screen.tick(/Wait until the served page/, false);
		await page.getByLabel('Rounds', { exact: true }).fill('1');
		await page.getByLabel('Warm-ups', { exact: true }).fill('0');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByRole('heading', { name: 'Next stage: After' }).waitFor({ timeout: 60_000 });
		await page.getByLabel('What was changed?').fill('Nothing at all');
		await page.getByRole('button', { name: 'Start “After”' }).click();
		await page.getByRole('button', { name: 'Repeat', exact: true }).waitFor({ timeout: 60_000 });
		expect(await (await screen.openPart('arms')).innerText()).to.match(/before “After”: Nothing at all/);
		await go('/trials?kind=before-after');
		expect(await page.locator('tbody tr').count()).to.equal(1);
	});
});
