/** Audits and the worklist, and looking at pages, as the analyst does them. */
import { expect } from 'chai';
import { startResolver } from '../../demo-web/special/resolver';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';
import { until } from '../support/world';

describe('audits', function () {
	this.timeout(180_000);
	let app: TestApp;
	let screen: Screen;
	let resolver: Awaited<ReturnType<typeof startResolver>>;
	before(async () => {
		resolver = await startResolver(0);
		app = await startApp({
			demo: true,
			environment: {
				ZAFRA_RESOLVERS: `the simulated web=127.0.0.1:${resolver.port}`,
				ZAFRA_RDAP: 'https://address-book.test/rdap'
			}
		});
		screen = await openScreen(app);
	});
	after(async () => {
		expect(screen.troubles).to.deep.equal([]);
		await screen.close();
		await app.end();
		resolver.close();
	});
	const text = (selector: string) => screen.page.locator(selector).innerText();

	it('of the demonstration say what to do, page by page, and what became of it', async () => {
		const { body } = await app.api('GET', '/api/audits?client=1');
		const [newest, , first] = body.rows as { id: number; name: string }[];
		await screen.go(`/audits/${first!.id}`);
		const before = await text('main');
		expect(before).to.match(/sent without compression/);
		expect(before).to.match(/on 6 of 6 pages, \d+.% of visits, in 36 of 36 loads/);
		expect(
			await screen.page.getByRole('table', { name: 'Where each page stands' }).locator('tbody tr').count()
		).to.equal(6);
		await screen.page
			.getByRole('button', { name: /How.*without compression/ })
			.first()
			.click();
		expect(await text('main'))
			.to.match(/Switch on gzip or Brotli/)
			.and.match(/Done when three good loads no longer show it/);
		expect(await screen.violations()).to.deep.equal([]);
		await screen.go(`/audits/${newest!.id}`);
		expect(await text('main')).to.match(/New: \d/);
		const { body: api } = await app.api('GET', `/api/audits/${newest!.id}`);
		const fates = new Set((api.since as { fate: string }[]).map(({ fate }) => fate));
		expect([...fates]).to.include.members(['left', 'new']);
	});

	it('fill the worklist: seen done by an audit, came back, and what somebody writes', async () => {
		await screen.go('/worklist');
		const states = await screen.page.getByLabel('State', { exact: true }).innerText();
		expect(states)
			.to.match(/seen done \(\d+\)/)
			.and.match(/came back \(\d+\)/);
		await screen.page.getByLabel('State', { exact: true }).selectOption({ label: await optionOf('open') });
		await until(async () => screen.page.url().includes('state=open'), 10_000, 'the filter');
		const row = screen.page.getByRole('table', { name: 'Worklist' }).locator('tbody tr').first();
		await row.getByRole('button', { name: /^How/ }).click();
		await screen.page.getByLabel('Whose it is').fill('Tam Brindle');
		await screen.page.getByLabel('Question to the client').fill('May this go?');
		await screen.page.locator('form').getByLabel('State', { exact: true }).selectOption('accepted');
		await screen.page.getByRole('button', { name: 'Save the line' }).click();
		await until(
			async () =>
				(await app.api('GET', '/api/findings?client=1&state=accepted')).body.rows.some(
					(line: { question: string }) => line.question === 'May this go?'
				),
			10_000,
			'the line to be saved'
		);
		expect(await screen.violations()).to.deep.equal([]);
	});

	async function optionOf(start: string): Promise<string> {
		const labels = await screen.page.getByLabel('State', { exact: true }).locator('option').allInnerTexts();
		return labels.find((label) => label.startsWith(start))!;
	}

	it('are made from a form and done by the lab', async () => {
		await screen.go('/audits/new');
		await screen.page.getByLabel('Other addresses, one a line').fill('https://truth.test/lcp');
		await screen.tick('Desktop', false);
		for (const name of await screen.page.locator('label:has(input[name=pages])').allInnerTexts())
			await screen.tick(name.trim(), false);
		await screen.page.getByLabel('Loads of each page and device').fill('1');
		await screen.page.getByRole('button', { name: 'Start the audit' }).click();
		await until(async () => /\/audits\/\d+$/.test(screen.page.url()), 10_000, 'the audit');
		const id = Number(screen.page.url().split('/').at(-1));
		await until(async () => (await app.api('GET', `/api/audits/${id}`)).body.isLookedAt, 90_000, 'its findings');
		const { body } = await app.api('GET', `/api/audits/${id}`);
		expect(body.pages).to.have.length(1);
		expect(body.pages[0].good).to.equal(1);
		// The page of known truth holds its largest picture back on the server.
		expect(body.pages[0].metrics.lcp.middle).to.be.above(0);
	});

	it('look at a page for steps: a check that the lab has tried is taken over', async () => {
		await screen.go('/loads');
		const { page } = screen;
		await page.getByLabel('Address', { exact: true }).fill('https://skerry-line.test/booking');
		await page.getByRole('button', { name: 'Add the steps of a journey' }).click();
		await page.getByRole('button', { name: 'Pick on the page' }).click();
		await page.getByRole('button', { name: 'Open it in the lab' }).click();
		const use = page.getByRole('button', { name: /Use it.*Menu or part opens/ }).first();
		await use.waitFor({ timeout: 120_000 });
		await use.click();
		await page.getByRole('button', { name: /, h1$/ }).first().click({ force: true });
		await page.getByRole('button', { name: 'Expect it' }).click();
		const steps = JSON.parse(await page.locator('input[name=steps]').inputValue()) as unknown[];
		expect(steps).to.have.length(3);
		expect(steps[0]).to.have.property('click');
	});

	it('the sweep of the demonstration is one table of pages, with what one of them has otherwise', async () => {
		const { body } = await app.api('GET', '/api/trials?q=late+pictures');
		const [sweep] = body.trials as { id: number }[];
		await screen.go(`/trials/${sweep!.id}`);
		const table = screen.page.getByRole('table', { name: 'Pages of the sweep' });
		expect(await table.locator('tbody tr').count()).to.equal(8);
		expect(await table.locator('tbody tr').first().innerText()).to.match(/^Home\s+Pictures cut to size/);
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('the site’s cache is asked for the pages of the sample, on each device', async () => {
		await screen.go('/pages?site=1');
		await screen.page.getByRole('button', { name: 'Ask the pages of the sample' }).click();
		await screen.page.getByText(/of 6 on Phone/).waitFor({ timeout: 60_000 });
		await screen.page.getByRole('button', { name: 'Show the pages' }).click();
		await screen.page.getByRole('table', { name: 'Pages and the site’s cache' }).waitFor();
		await screen.page
			.getByRole('button', { name: 'Stop asking' })
			.click()
			.catch(() => undefined);
	});

	it('single loads are found by address, device and status', async () => {
		await screen.go('/loads?q=no-such-address');
		expect(await text('main')).to.contain('No load fits.');
		await screen.page.getByPlaceholder('Part of the address').fill('booking');
		await until(async () => (await text('main')).includes('skerry-line.test/booking'), 10_000, 'the load');
	});

	it('the host of a site is looked at as it really is', async () => {
		const { body: sites } = await app.api('GET', '/api/sites?client=1');
		const own = (sites as { id: number; host: string }[]).find(({ host }) => host === 'skerry-line.test')!;
		await screen.go(`/clients/1/sites/${own.id}`);
		await screen.page.getByRole('button', { name: 'Look at the host' }).click();
		await screen.page.getByText('Name resolved by the simulated web').waitFor({ timeout: 60_000 });
		expect(await text('main')).to.match(/Network\s+(Tidewater Racks|Old Mill Hosting)/);
	});
});
