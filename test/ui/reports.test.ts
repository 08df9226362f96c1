import { expect } from 'chai';
import { execFileSync } from 'node:child_process';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';
import { until } from '../support/world';

const CHAT = 'Did adding the chat make the timetable slower?';

describe('reports', function () {
	this.timeout(240_000);
	let app: TestApp;
	let screen: Screen;
	/** Of the report that is written here. */
	let id: number;
	let link: string;
	before(async () => {
		app = await startApp({ demo: true });
		screen = await openScreen(app);
		const isFrozen = async () =>
			(await app.api('GET', '/api/reports')).body.reports.filter((report: any) => report.number === 1).length === 2;
		await until(isFrozen, 180_000, 'the reports of the demonstration to be frozen');
	});
	after(async () => {
		expect(screen?.troubles).to.deep.equal([]);
		await screen?.close();
		await app?.end();
	});

	it('of the demonstration are two frozen ones, one of them in Spanish, and a draft', async () => {
		const { page } = screen;
		await screen.go('/reports');
		await page.getByRole('row', { name: /chat make the timetable slower.*English.*1, / }).waitFor();
		await page.getByRole('row', { name: /Tres páginas.*Spanish.*1, / }).waitFor();
		await page.getByRole('row', { name: /Which plugin.*never frozen/ }).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('of pages have their worksheet as a table', async () => {
		const { body } = await app.api('GET', '/api/reports');
		const audit = body.reports.find((report: any) => report.language === 'es');
		const csv = await (await fetch(`${app.url}/reports/${audit.id}/versions/1/download/worksheet.csv`)).text();
		const [head, ...rows] = csv.trim().split('\r\n');
		expect(head).to.match(/^Página,Dispositivo,Visitantes reales,/);
		// Three pages on two devices.
		expect(rows).to.have.length(6);
		expect(csv).to.match(/\/timetable,móvil,/);
	});

	it('begin on a trial’s sheet, with a draft that is good at once', async () => {
		const { page } = screen;
		await screen.go('/trials');
		await page.getByRole('link', { name: CHAT }).click();
		await page.getByRole('button', { name: 'Write a report' }).click();
		await page.waitForURL(/\/reports\/\d+$/);
		id = Number(page.url().split('/').at(-1));
		const preview = page.getByRole('region', { name: 'Preview' });
		await preview.getByRole('heading', { level: 1, name: CHAT }).waitFor();
		await preview.getByText('Phone', { exact: true }).first().waitFor();
		for (const heading of ['The answer', 'What changed', 'Why', 'How this was measured', 'All loads'])
			await preview.getByRole('heading', { level: 2, name: heading, exact: true }).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('are not frozen before it is said whether anybody pays', async () => {
		const { page } = screen;
		await page.getByRole('button', { name: 'Freeze a version' }).click();
		await page.getByText(/Say whether anybody pays you/).waitFor();
	});

	it('take words, and figures that are chosen and not typed', async () => {
		const { page } = screen;
		await page.getByRole('button', { name: 'Answer', exact: true }).click();
		const words = page.getByRole('textbox', { name: 'Your words' });
		await words.click();
		await page.keyboard.type('On phones it blocks for ');
		const figures = page.getByLabel('Put in a figure');
		const choice = await figures
			.locator('option', { hasText: /Phone · Blocking time · With Parlour Bell · variant/i })
			.first()
			.getAttribute('value');
		await figures.selectOption(choice!);
		const preview = page.getByRole('region', { name: 'Preview' });
		const blocked = await page.evaluate(async () => {
			const { results } = (await (await fetch('/api/trials/1')).json()) as {
				results: { condition: string; metric: string; armMedian: number }[];
			};
			return results.find(({ condition, metric }) => condition === 'phone' && metric === 'tbt')!.armMedian;
		});
		await preview.getByText(`On phones it blocks for ${Math.round(blocked)}`).waitFor();
		expect(await preview.locator(`.words [data-figure="${choice}"]`).count()).to.equal(1);
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('have blocks that are moved, added and removed by keyboard', async () => {
		const { page } = screen;
		const names = () => page.locator('.blocks .name').allInnerTexts();
		const before = await names();
		await page.getByRole('button', { name: 'Move Shift board up' }).press('Enter');
		await until(async () => (await names())[0] === before[1], 5000, 'the board to be first');
		// The handle: Space takes, arrows move, Space drops.
		const handle = page.getByLabel('Move Answer', { exact: true });
		await handle.focus();
		await page.keyboard.press('Space');
		await page.keyboard.press('ArrowUp');
		await page.keyboard.press('Space');
		await until(async () => (await names())[0] === before[0], 5000, 'the answer to be first again');
		await page.getByLabel('Add a block').selectOption({ label: 'Claims' });
		await page.getByRole('button', { name: 'Add claim' }).click();
		await page.getByLabel('As it was said').fill('160 % faster');
		await page.getByLabel('Before', { exact: true }).fill('3.9');
		await page.getByLabel('After', { exact: true }).fill('1.5');
		await page.getByLabel('Claimed per cent, if any').fill('160');
		await page.getByLabel('Claimed per cent, if any').blur();
		await page.getByText('The claimed share is of the figure after, not of the figure before.').waitFor();
		await page.getByRole('button', { name: 'Remove All loads' }).click();
		await until(async () => !(await names()).includes('All loads'), 5000, 'the appendix to be gone');
	});

	it('tell the second of two who edit that the first has saved', async () => {
		const { page } = screen;
		const { body } = await app.api('GET', `/api/reports/${id}`);
		const theirs = { draft: { ...body.draft, title: 'Saved by somebody else' }, revision: body.revision };
		expect((await app.api('PATCH', `/api/reports/${id}`, theirs)).status).to.equal(200);
		await page.getByLabel('Title').fill('Mine');
		await page.getByLabel('Title').blur();
		await page.getByText(/Somebody else has saved this report meanwhile/).waitFor();
		expect(await page.getByLabel('Title').inputValue()).to.equal('Mine');
		screen.troubles.splice(0);
		await page.evaluate(() =>
			window.addEventListener('beforeunload', (event) => event.stopImmediatePropagation(), true)
		);
	});

	it('are frozen as a version that is shared by a link, shown once', async () => {
		const { page } = screen;
		page.once('dialog', (dialog) => void dialog.accept());
		await screen.go(`/reports/${id}`);
		await page.getByLabel('Paid for recommending?').selectOption('no');
		await page.getByText('Saved', { exact: false }).first().waitFor();
		await page.getByRole('button', { name: 'Freeze a version' }).click();
		await page.waitForURL(/versions\/1$/);
		await page.getByRole('button', { name: 'Make a link' }).click();
		link = (await page.locator('code', { hasText: '/r/' }).innerText()).trim();
		expect(link).to.match(/\/r\/[\w-]{43}$/);
		expect(await screen.violations()).to.deep.equal([]);
		await screen.go(`/reports/${id}/versions/1`);
		expect(await page.getByText(link).count()).to.equal(0);
		await page.getByRole('cell', { name: 'open' }).waitFor();
	});

	it('open for a client with the link, without scripts or cookies, on a phone too', async () => {
		const context = await screen.browser.newContext({
			viewport: { width: 400, height: 800 },
			javaScriptEnabled: false
		});
		const page = await context.newPage();
		const answer = await page.goto(link);
		expect(answer!.headers()['x-robots-tag']).to.contain('noindex');
		await page.getByRole('heading', { level: 1, name: 'Saved by somebody else' }).waitFor();
		expect(await page.locator('script').count()).to.equal(0);
		expect(await context.cookies()).to.deep.equal([]);
		expect(await page.locator('nav a[href^="/"]').count()).to.equal(0);
		await context.close();
		await screen.page.goto(link);
		expect(await screen.violations()).to.deep.equal([]);
		const { width, room } = await screen.page.evaluate(() => ({
			width: document.documentElement.scrollWidth,
			room: innerWidth
		}));
		expect(width).to.be.at.most(room);
	});

	it('answer a wrong link as they answer a revoked one', async () => {
		const wrong = await fetch(`${app.url}/r/${'x'.repeat(43)}`);
		const { body } = await app.api('GET', `/api/reports/${id}/versions/1`);
		expect(body.shares[0].views).to.equal(2);
		await app.api('DELETE', `/api/shares/${body.shares[0].id}`);
		const revoked = await fetch(link);
		expect([wrong.status, revoked.status]).to.deep.equal([404, 404]);
		expect(await revoked.text()).to.equal(await wrong.text());
	});

	it('ask for the pass phrase where there is one', async () => {
		const { page } = screen;
		const made = await app.api('POST', `/api/reports/${id}/versions/1/shares`, { phrase: 'grey seal' });
		await page.goto(made.body.url);
		await page.getByLabel('The sender has told it to you.').fill('brown seal');
		await page.getByRole('button', { name: 'Open the report' }).click();
		await page.getByText('That is not the pass phrase.').waitFor();
		await page.getByLabel('The sender has told it to you.').fill('grey seal');
		await page.getByRole('button', { name: 'Open the report' }).click();
		await page.getByRole('heading', { level: 1, name: 'Saved by somebody else' }).waitFor();
		screen.troubles.splice(0);
	});

	it('are printed by the lab: tagged, titled, in their language, with their figures as text', async () => {
		const { page } = screen;
		await screen.go(`/reports/${id}/versions/1`);
		await page.getByRole('button', { name: 'Print a PDF, A4' }).click();
		await page.getByRole('link', { name: 'PDF, A4' }).waitFor({ timeout: 90_000 });
		const bytes = new Uint8Array(
			await (await fetch(`${app.url}/reports/${id}/versions/1/download/report-A4.pdf`)).arrayBuffer()
		);
		expect(bytes.length).to.be.below(3_000_000);
		const pdf = await getDocument({ data: bytes, verbosity: 0 }).promise;
		const { info } = (await pdf.getMetadata()) as any;
		expect(info.Title).to.equal('Saved by somebody else');
		expect(info.Language).to.equal('en');
		expect(await pdf.getMarkInfo()).to.include({ Marked: true });
		const pages = await Promise.all(Array.from({ length: pdf.numPages }, (_, i) => pdf.getPage(i + 1)));
		// ISO 216: 210 x 297 mm, in points of 1/72 inch.
		expect(pages[0]!.view[2]).to.be.closeTo(595.3, 1);
		expect(pages[0]!.view[3]).to.be.closeTo(841.9, 1);
		expect(await pages[0]!.getStructTree()).to.not.equal(null);
		const contents = await Promise.all(pages.map((proxy) => proxy.getTextContent()));
		const text = contents
			.flatMap(({ items }) => items.map((item: any) => item.str))
			.join(' ')
			.replace(/\s+/g, ' ');
		const { body } = await app.api('GET', `/api/reports/${id}/versions/1`);
		const board = body.view.blocks.find((block: any) => block.from === 'board').body.boards[0];
		for (const row of board.rows) expect(text).to.contain(row.variant.text.replace(/\u00a0/g, ' '));
		expect(text).to.contain(`1 / ${pdf.numPages}`);
		expect((await pdf.getOutline())?.length).to.be.above(0);
	});

	it('have a bundle that verifies from the command line, and does not once a figure was changed', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-bundle-'));
		const path = join(folder, 'bundle.zip');
		const bytes = await (await fetch(`${app.url}/reports/${id}/versions/1/download/bundle.zip`)).arrayBuffer();
		writeFileSync(path, Buffer.from(bytes));
		const verify = () => execFileSync(process.execPath, ['build/verify/verify.mjs', path], { encoding: 'utf8' });
		// Drawn by the app and by the command alike, so that the page too is compared.
		expect(verify())
			.to.match(/figures computed anew, 0 faults\nVerified: /)
			.and.not.include('drawn by another version');
		const files = unzipSync(readFileSync(path));
		const figures = strFromU8(files['figures.csv']!);
		writeFileSync(path, zipSync({ ...files, 'figures.csv': strToU8(figures.replace(/worse/, 'better')) }));
		let told = '';
		try {
			verify();
		} catch (error) {
			told = (error as { stdout: string }).stdout;
		}
		expect(told).to.match(/sum\s+figures\.csv/);
		expect(told).to.match(/figure\s+figures\.csv: row \d+: found “.*better”, should be “.*worse”/);
		rmSync(folder, { recursive: true });
	});
});
