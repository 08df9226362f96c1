import { expect } from 'chai';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';

/** The analyst begins the work: a client, its site, its pages, a sample of them. */
describe('beginning the work for a client', function () {
	this.timeout(180_000);
	let app: TestApp;
	let screen: Screen;
	before(async () => {
		app = await startApp();
		screen = await openScreen(app);
	});
	after(async () => {
		expect(screen?.troubles).to.deep.equal([]);
		await screen?.close();
		await app?.end();
	});

	it('teaches the first step where there is no client yet', async () => {
		await screen.go('/pages');
		await screen.page.getByRole('link', { name: 'New client' }).click();
		await screen.page.getByRole('heading', { name: 'New client' }).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('makes a client, keeps what was typed when something is wrong, and goes on to its sites', async () => {
		const { page } = screen;
		await screen.go('/clients/new');
		await page.getByLabel('Name', { exact: true }).fill('Skerry Line');
		await page.getByLabel('People to report to').fill('Ines Harrow, bookings, ines at skerry');
		await page.getByLabel('Accent colour in reports').fill('sea green');
		await page.getByRole('button', { name: 'Add a target' }).click();
		await page.getByLabel(/^Good enough/).fill('1800');
		await page.getByRole('button', { name: 'Save the client' }).click();
		await page.getByText('Write a colour as #1F6F54.').waitFor();
		expect(await page.getByLabel('Name', { exact: true }).inputValue()).to.equal('Skerry Line');
		expect(await page.getByLabel(/^Good enough/).inputValue()).to.equal('1800');
		await page.getByLabel('Accent colour in reports').fill('#0B6E8A');
		await page.getByRole('button', { name: 'Save the client' }).click();
		await page.getByRole('heading', { name: 'Skerry Line', level: 1 }).waitFor();
		await screen.openPart('usual');
		expect(await page.getByText('Largest Contentful Paint, all conditions: 1.80 s').count()).to.equal(1);
	});

	it('adds a site, and reads its sitemap through the lab', async () => {
		const { page } = screen;
		await page.getByLabel('Host', { exact: true }).fill('skerry line');
		await page.getByRole('button', { name: 'Add the site' }).click();
		await page.getByText(/is a host alone/).waitFor();
		await page.getByLabel('Host', { exact: true }).fill('skerry-line.test');
		await page.getByRole('button', { name: 'Add the site' }).click();
		await page.getByRole('link', { name: 'Add its pages' }).click();
		await page.getByLabel('Address of the sitemap').waitFor();
		expect(await page.getByLabel('Address of the sitemap').inputValue()).to.equal(
			'https://skerry-line.test/sitemap.xml'
		);
		await page.getByRole('button', { name: 'Read the sitemap' }).click();
		await page.getByText(/One sitemap: 13 new, 0 known/).waitFor({ timeout: 60_000 });
		expect(await page.getByRole('row').count()).to.equal(14);
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('takes proposed page types and the proposed sample, and sees at once what they cover', async () => {
		const { page } = screen;
		const name = page.getByLabel('Name of the type islands');
		await name.fill('island');
		await page.getByRole('button', { name: 'Take islands' }).click();
		await page.getByRole('cell', { name: 'island', exact: true }).first().waitFor();
		await page.getByRole('button', { name: /^Take all/ }).click();
		await page.getByRole('button', { name: 'Take the proposed sample' }).click();
		const covered = page.getByRole('heading', { name: /\d+ pages: (\d+) of \1 types/ });
		await covered.waitFor();
		const before = Number(/^(\d+)/.exec(await covered.innerText())![1]);
		await page.getByRole('button', { name: /^In the sample \/booking/ }).click();
		await page.getByRole('heading', { name: new RegExp(`^${before - 1} pages`) }).waitFor();
		await page.getByText('No page yet of: booking.').waitFor();
		await page.getByRole('button', { name: 'Add /booking' }).first().click();
		await page.getByRole('heading', { name: new RegExp(`^${before} pages`) }).waitFor();
	});

	it('reads a traffic table whose columns it tells apart, and says how much of the traffic the sample carries', async () => {
		const { page } = screen;
		const file = join(mkdtempSync(join(tmpdir(), 'zafra-traffic-')), 'traffic.csv');
		writeFileSync(file, Buffer.from('Ruta;Visitas;Otra\n/;1.200;x\n/timetable;800;ñ\nTotal;2.000;\n', 'latin1'));
		await screen.go(new URL(page.url()).pathname + new URL(page.url()).search);
		await page.getByText('Add pages or a traffic table').click();
		await page.getByLabel('Choose a traffic table').setInputFiles(file);
		const visits = page.getByLabel('Visits', { exact: true });
		await visits.waitFor();
		expect(await visits.evaluate((select) => (select as HTMLSelectElement).selectedOptions[0]!.text)).to.equal(
			'Visitas'
		);
		await page.getByRole('button', { name: 'Read the table' }).click();
		await page.getByText(/2 pages with 2,000 visits/).waitFor();
		await page.getByRole('heading', { name: /% of visits/ }).waitFor();
		expect(await page.getByText('too quiet for field data').count()).to.be.above(3);
	});

	it('marks pages and changes their type in bulk', async () => {
		const { page } = screen;
		await screen.tick('Mark /news/dogs', true);
		await screen.tick('Mark /news/new-ramp', true);
		await page.getByText('2 marked').waitFor();
		await page.getByRole('combobox', { name: 'Their type' }).fill('notice');
		await page.getByRole('button', { name: 'Set the type' }).click();
		await page.getByRole('cell', { name: 'notice', exact: true }).first().waitFor();
		expect(await page.getByRole('cell', { name: 'notice', exact: true }).count()).to.equal(2);
	});

	it('writes down who visits, and offers it to a trial', async () => {
		const { page } = screen;
		await screen.go('/clients');
		await page.getByRole('link', { name: 'Skerry Line' }).click();
		await page.getByRole('link', { name: 'skerry-line.test', exact: true }).click();
		await page.getByRole('button', { name: 'Add a visitor state' }).click();
		await page.getByLabel('Name', { exact: true }).first().fill('Signed in');
		await page.getByLabel('Cookies').fill('member');
		await page.getByRole('button', { name: 'Save the state' }).click();
		await page.getByText('“member” is no cookie: write “name=value”.').waitFor();
		await page.getByLabel('Cookies').fill('member=1');
		await page.getByRole('button', { name: 'Save the state' }).click();
		await page.getByRole('row', { name: /Signed in/ }).waitFor();
		expect(await page.content()).not.to.include('member=1');
		await screen.go('/trials/new?template=candidates');
		await page.getByText('More: metrics to decide on').click();
		const visitor = page.getByLabel('Visitor of Candidate');
		expect(await visitor.locator('option').allInnerTexts()).to.deep.equal(['Anonymous', 'skerry-line.test: Signed in']);
	});

	it('archives a client and asks before it deletes one, saying what goes along', async () => {
		const { page } = screen;
		await screen.go('/clients');
		await page.getByRole('link', { name: 'Skerry Line' }).click();
		await page.getByRole('button', { name: 'Archive' }).click();
		await page.getByText(/^Archived on/).waitFor();
		await page.getByRole('button', { name: 'Delete', exact: true }).click();
		const dialog = page.getByRole('dialog');
		await dialog.getByText(/one site, 13 pages/).waitFor();
		await dialog.getByRole('button', { name: 'Delete the client' }).click();
		await page.getByRole('heading', { name: 'The first client' }).waitFor();
	});

	it('keeps components once, with tiers and by what they are known', async () => {
		const { page } = screen;
		await screen.go('/workshop/components/new');
		await page.getByLabel('Name', { exact: true }).fill('Larder');
		await page.getByLabel('Parts of a path').fill('/larder/');
		await page.getByRole('button', { name: 'Add a tier' }).click();
		await page.getByLabel('Tier', { exact: true }).fill('paid');
		await page.getByLabel('Price', { exact: true }).fill('5');
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByRole('button', { name: 'Save the component' }).click();
		const row = page.getByRole('row', { name: /Larder/ });
		await row.waitFor();
		expect(await row.innerText()).to.match(/plugin\s+paid/);
	});
});
