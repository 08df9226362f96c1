import { expect } from 'chai';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';
import { RELEASE_BYTES, SHOP, SLOW_MS, startShop, type Shop } from '../support/shopServer';
import { until } from '../support/world';

/** A whole day of a newcomer, on a shop whose truth is known: some 120 loads, so with `npm run test:long` alone. */
const long = process.env.ZAFRA_TEST_LONG ? describe : describe.skip;
long('a day’s work', function () {
	this.timeout(400_000);
	let shop: Shop;
	let app: TestApp;
	let screen: Screen;
	let client: number;
	let site: number;
	let pages: { id: number; url: string }[];
	before(async () => {
		shop = await startShop();
		app = await startApp({ environment: { ZAFRA_HOST_MAP: `${SHOP}=127.0.0.1:${shop.port}`, ZAFRA_PANEL: '' } });
		screen = await openScreen(app);
	});
	after(async () => {
		expect(screen?.troubles).to.deep.equal([]);
		await screen?.close();
		await app?.end();
		shop?.close();
	});
	const get = async (path: string) => (await app.api('GET', path)).body;
	async function post(path: string, body?: unknown) {
		const answer = await app.api('POST', path, body);
		expect(answer.status, JSON.stringify(answer.body)).to.be.below(300);
		return answer.body;
	}
	const pageAt = (path: string) => pages.find(({ url }) => url.endsWith(path))!.id;

	it('begins with a client, its site without TLS, and a sitemap with & in its addresses', async () => {
		const { page } = screen;
		await screen.go('/clients/new');
		await page.getByLabel('Name', { exact: true }).fill('Pellow’s Seed House');
		await page.getByLabel('Language of its reports').selectOption('es');
		await page.getByLabel('Requests that must still leave').fill(`Counting: ${SHOP}/count`);
		await page.getByRole('button', { name: 'Save the client' }).click();
		await page.getByRole('heading', { name: 'Pellow’s Seed House', level: 1 }).waitFor();
		client = Number(page.url().split('/').at(-1));
		await page.getByLabel('Host', { exact: true }).fill(`http://${SHOP}`);
		await page.getByRole('button', { name: 'Add the site' }).click();
		await page.getByRole('link', { name: 'Add its pages' }).click();
		await page.getByLabel('Address of the sitemap').waitFor();
		expect(await page.getByLabel('Address of the sitemap').inputValue()).to.equal(`http://${SHOP}/sitemap.xml`);
		await page.getByRole('button', { name: 'Read the sitemap' }).click();
		await page.getByText(/One sitemap: 4 new, 0 known/).waitFor({ timeout: 60_000 });
		site = (await get(`/api/sites?client=${client}`))[0].id;
		pages = (await get(`/api/pages?site=${site}`)).rows;
		expect(pages.map(({ url }) => url)).to.include(`http://${SHOP}/seeds/peas?size=1&tray=2`);
	});

	it('reads a traffic table that begins with a preamble', async () => {
		const { page } = screen;
		await screen.go(`/pages?site=${site}`);
		await page.getByText('Add pages or a traffic table').click();
		const csv = '# Visits of October\n# All visitors\n\nPage,Visits\n/,9000\n/seeds/beans,3840\n';
		await page
			.getByLabel('Choose a traffic table')
			.setInputFiles({ name: 'traffic.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
		await page.getByRole('button', { name: 'Read the table' }).click();
		await page.getByText(/2 pages with 12,840 visits/).waitFor();
		await post(`/api/sites/${site}/sample`, { pages: [pageAt('.test/'), pageAt('/beans')] });
	});

	it('says of pages that nobody asked about that there is no data yet', async () => {
		const { page } = screen;
		await screen.go('/field');
		const told = await page.getByRole('table', { name: 'What real visitors had' }).innerText();
		expect(told).to.match(/no data yet/i);
		expect(told).not.to.match(/too few visits/i);
	});

	it('takes the client’s list of what must be sent to a trial of three variants, and finds what each does', async () => {
		const { page } = screen;
		await screen.go('/clients');
		await page.getByLabel('Client', { exact: true }).selectOption({ label: 'Pellow’s Seed House' });
		await screen.go('/trials/new?template=candidates');
		await page.getByText('More: metrics to decide on').click();
		expect(await page.getByLabel(/^Requests that must still leave/).inputValue()).to.include('/count');
		const arms = ['plain', 'slow', 'uncounted'].map((name, i) => ({
			name,
			url: `http://${SHOP}/three/${name}`,
			baseline: i === 0
		}));
		const { mustSend } = await get(`/api/clients/${client}`);
		expect(mustSend).to.have.length(1);
		const { id } = await post('/api/trials', {
			clientId: client,
			question: 'Which of three pages?',
			kind: 'side-by-side',
			arms,
			conditions: ['desktop'],
			rounds: 8,
			warmups: 0,
			adaptive: false,
			late: false,
			mustSend
		});
		await post(`/api/trials/${id}/start`);
		await until(async () => (await get(`/api/trials/${id}`)).status === 'done', 240_000, 'three variants');
		const { results, arms: made } = await get(`/api/trials/${id}`);
		const lcp = (name: string) =>
			results.find(
				(result: any) => result.metric === 'lcp' && result.arm === made.find((arm: any) => arm.name === name).id
			);
		expect(lcp('slow').verdict).to.equal('worse');
		expect(lcp('slow').shift.estimate).to.be.closeTo(SLOW_MS, SLOW_MS / 5);
		await screen.go(`/trials/${id}`);
		await page
			.getByText(/“uncounted”: Counting left in 0 of 8 loads/)
			.first()
			.waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('finds a release with a late image and 150 kB of script, before and after', async () => {
		const arms = ['Before', 'After'].map((name, i) => ({ name, url: `http://${SHOP}/seeds/beans`, baseline: i === 0 }));
		const { id } = await post('/api/trials', {
			clientId: client,
			question: 'What did the release bring?',
			kind: 'before-after',
			arms,
			conditions: ['desktop'],
			rounds: 6,
			warmups: 0
		});
		await post(`/api/trials/${id}/start`);
		await until(async () => (await get(`/api/trials/${id}`)).status === 'waiting', 200_000, 'the first stage');
		shop.hasRelease = true;
		await post(`/api/trials/${id}/start`, { stage: 1 });
		await until(async () => (await get(`/api/trials/${id}`)).status === 'done', 200_000, 'the second stage');
		const { results } = await get(`/api/trials/${id}`);
		const of = (metric: string) => results.find((result: any) => result.metric === metric);
		expect(of('wire').verdict).to.equal('worse');
		expect(of('wire').shift.estimate).to.be.within(RELEASE_BYTES, RELEASE_BYTES + 2000);
		expect(of('cls').verdict).to.equal('worse');
		const { page } = screen;
		await screen.go(`/trials/${id}?open=why`);
		await page
			.locator('#why')
			.getByText(/garden\.svg|release\.js/)
			.first()
			.waitFor({ timeout: 30_000 });
	});

	it('imports field figures from a file, without a panel', async () => {
		const lastWeek = new Date(Date.now() - 7 * 86_400_000).toISOString().slice(0, 10);
		const csv = `Address,Device,Last day,LCP,INP,CLS\nhttp://${SHOP}/,phone,${lastWeek},2100,140,0.02\n`;
		const { page } = screen;
		await screen.go('/field');
		await page
			.getByLabel('Choose a table of readings')
			.setInputFiles({ name: 'field.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
		await page.getByRole('button', { name: 'Read the table' }).click();
		await page.getByRole('row', { name: /phone.*good on all three/i }).waitFor();
	});

	it('watches a page, and says when it answers 500, leads elsewhere, or was rebuilt', async () => {
		const home = pageAt('.test/');
		const watch = await post('/api/watches', {
			clientId: client,
			name: 'Front door',
			pages: [home, pageAt('/about')],
			conditions: ['desktop'],
			loads: 3
		});
		const readAs = async (state: Shop['home']) => {
			shop.home = state;
			await post(`/api/watches/${watch.id}/read`);
			const isRead = async () => (await get(`/api/watches/${watch.id}`)).progress === null;
			await until(isRead, 200_000, `a reading while the page is ${state}`);
			await screen.go(`/watch/${watch.id}/${home}`);
			return screen.page.locator('main').innerText();
		};
		await readAs('usual');
		expect(await readAs('broken')).to.match(/500/);
		expect(await readAs('moved')).to.match(/\/closed|elsewhere|another page/i);
		expect(await readAs('rebuilt')).to.match(/rebuilt|another template|other markup/i);
		expect(await readAs('usual')).to.match(/Largest Contentful Paint/);
	});

	it('reports in Spanish, as a frozen version and a PDF', async () => {
		const { trials } = await get('/api/trials');
		const trial = trials.find((entry: any) => entry.question === 'What did the release bring?').id;
		const { id } = await post('/api/reports', { trial });
		const { draft, revision } = await get(`/api/reports/${id}`);
		const said = { draft: { ...draft, disclosure: { ...draft.disclosure, isPaid: false } }, revision };
		expect((await app.api('PATCH', `/api/reports/${id}`, said)).status).to.equal(200);
		await post(`/api/reports/${id}/versions`);
		const html = await (await fetch(`${app.url}/reports/${id}/versions/1/download/report.html`)).text();
		expect(html).to.match(/lang="es"/);
		await post(`/api/reports/${id}/versions/1/pdf`);
		const isPrinted = async () => (await get(`/api/reports/${id}/versions/1/pdf`)).pdfs[0].state === 'ready';
		await until(isPrinted, 90_000, 'the PDF');
		const file = await fetch(`${app.url}/reports/${id}/versions/1/download/report-A4.pdf`);
		const pdf = await getDocument({ data: new Uint8Array(await file.arrayBuffer()) }).promise;
		const text = (await (await pdf.getPage(1)).getTextContent()).items.map((item) => ('str' in item ? item.str : ''));
		expect(text.join(' ')).to.match(/«After»|“After”/);
	});

	it('keeps what two tabs change apart, and can be read dark and on a phone', async () => {
		const { page } = screen;
		const other = await screen.browser.newPage();
		await other.goto(`${app.url}/clients/${client}/change`);
		await screen.go(`/clients/${client}/change`);
		await page.getByLabel('Note', { exact: true }).fill('First');
		await page.getByRole('button', { name: 'Save the client' }).click();
		await page.getByRole('heading', { name: 'Pellow’s Seed House', level: 1 }).waitFor();
		await other.getByLabel('Note', { exact: true }).fill('Second');
		await other.getByRole('button', { name: 'Save the client' }).click();
		await other
			.getByText(/meanwhile/)
			.first()
			.waitFor();
		await other.close();
		await page.emulateMedia({ colorScheme: 'dark' });
		await page.setViewportSize({ width: 400, height: 800 });
		for (const path of ['/', '/trials', '/watch', '/field', `/pages?site=${site}`, `/clients/${client}`]) {
			await screen.go(path);
			const isWide = await page.evaluate(() => document.documentElement.scrollWidth > innerWidth + 1);
			expect(isWide, `${path} scrolls sideways`).to.equal(false);
			expect(await screen.violations(), path).to.deep.equal([]);
		}
	});
});
