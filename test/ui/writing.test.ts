import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';

describe('writing a trial and following it', () => {
	let app: TestApp;
	let screen: Screen;
	const address = (variant: number) => screen.page.getByRole('combobox', { name: `Address of variant ${variant}` });
	before(async () => {
		app = await startApp({ demo: true });
		screen = await openScreen(app);
	});
	after(async () => {
		await screen?.close();
		await app?.end();
	});

	beforeEach(async () => {
		await screen.page.setViewportSize({ width: 1280, height: 800 });
		await screen.page.emulateMedia({ colorScheme: 'light', media: 'screen' });
	});

	it('keeps what was typed and says what is wrong at the field', async () => {
		const { page } = screen;
		await screen.go('/trials/new');
		await page.getByLabel('Name of variant 2').fill('With chat');
		await address(1).fill('https://skerry-line.test/');
		await address(2).fill('skerry-line');
		await screen.tick(/Look after 10/, false);
		await page.getByLabel('Rounds', { exact: true }).fill('500');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByText('This is not a web address').waitFor();
		expect(await page.getByText('Write the question that the trial shall answer.').count()).to.equal(1);
		expect(await page.getByText('Rounds must be a whole number from 1 to 100.').count()).to.equal(1);
		expect(await address(2).inputValue()).to.equal('skerry-line');
		expect(await page.getByLabel('Name of variant 2').inputValue()).to.equal('With chat');
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('keeps a trial that is being written over a reload, until it is started afresh', async () => {
		const { page } = screen;
		await screen.go('/trials/new');
		await page.getByText('This is what you typed before.').waitFor();
		expect(await address(2).inputValue()).to.equal('skerry-line');
		await page.getByRole('button', { name: 'Start afresh' }).click();
		expect(await address(2).inputValue()).to.equal('');
	});

	it('says which line of a check or of a must-send list cannot be read, beside it', async () => {
		const { page } = screen;
		await screen.go('/trials/new?template=candidates');
		await page.getByText('More: metrics to decide on').click();
		await page.getByLabel('Checks of Candidate').fill('header x-cache: HIT\nx-cache HIT');
		await page.getByLabel(/^Requests that must still leave/).fill('stilewatch.test/hit');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByText(/“x-cache HIT” is no check\. Write for example/).waitFor();
		expect(await page.getByText(/“stilewatch\.test\/hit” cannot be read/).count()).to.equal(1);
		expect(await page.getByLabel('Checks of Candidate').inputValue()).to.equal('header x-cache: HIT\nx-cache HIT');
		// The form goes to its first error: a button half below the line above would be told as too small.
		await page.evaluate(() => window.scrollTo({ top: 0, behavior: 'instant' }));
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('makes a variant of each pasted address and counts the cost as it grows', async () => {
		const { page } = screen;
		await screen.go('/trials/new?template=candidates');
		const plan = page.getByRole('complementary', { name: /What this trial costs/ });
		const costs = async () => Number(/at most (\d+)/.exec(await plan.innerText())![1]);
		expect(await costs()).to.equal(100);
		await address(1).evaluate((input) => {
			const clipboardData = new DataTransfer();
			clipboardData.setData(
				'text',
				'https://skerry-line.test/ https://skerry-line.test/fares\nhttps://skerry-line.test/contact'
			);
			input.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
		});
		await address(3).waitFor();
		expect(await address(3).inputValue()).to.equal('https://skerry-line.test/contact');
		expect(await page.getByLabel('Name of variant 3').inputValue()).to.equal('skerry-line.test/contact');
		expect(await costs()).to.equal(150);
		await page.getByRole('button', { name: 'Remove variant 3' }).click();
		expect(await costs()).to.equal(100);
	});

	it('takes a question through the lab to an answer, live, and says so on other screens', async () => {
		const { page } = screen;
		await screen.go('/trials/new?template=candidates');
		await page.getByLabel('What do you want to know?').fill('Is the home page lighter than the timetable?');
		await page.getByLabel('Name of variant 1').fill('Timetable');
		await address(1).fill('https://skerry-line.test/timetable');
		await page.getByLabel('Name of variant 2').fill('Home');
		await address(2).fill('https://skerry-line.test/');
		await page.keyboard.press('Tab');
		await screen.tick(/Phone/, false);
		await screen.tick(/Look after 10/, false);
		await screen.tick(/Wait until the served page/, false);
		await page.getByText('More: metrics to decide on').click();
		await screen.tick(/^At the end, load each variant once/, false);
		await page.getByLabel('Rounds', { exact: true }).fill('1');
		await page.getByLabel('Warm-ups', { exact: true }).fill('0');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByRole('heading', { name: 'Is the home page lighter than the timetable?' }).waitFor();
		await page.getByRole('button', { name: 'Stop' }).waitFor();
		// Without reloading: any screen hears of it, and its notice leads to the sheet.
		await page.getByRole('link', { name: 'Workshop' }).click();
		await page.getByText('A trial is done').waitFor({ timeout: 200_000 });
		await page.getByRole('status').getByRole('link', { name: 'Is the home page lighter' }).click();
		await page.getByRole('button', { name: 'Print for the client' }).waitFor();
		await page.getByText(/Not decided whether “Home” differs from “Timetable”/).waitFor();
		expect(await (await screen.openPart('loads')).locator('tbody tr').count()).to.equal(2);
		// It was sent: there is no draft of it any more.
		await screen.go('/trials/new');
		expect(await page.getByText('This is what you typed before.').count()).to.equal(0);
	});

	it('shows a draft and a running trial as a board without marks', async () => {
		const { page } = screen;
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
		await screen.go(`/trials/${body.id}`);
		const board = page.getByRole('table', { name: 'What is decided on, Desktop' });
		expect(await board.getByText('not yet').count()).to.equal(5);
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByRole('button', { name: 'Stop' }).waitFor();
		expect(await board.getByText('not yet').count()).to.equal(5);
		await page.getByRole('button', { name: 'Stop', exact: true }).click();
		await page.getByText('Nothing more is loaded.').waitFor();
		await page.getByRole('button', { name: 'Stop it' }).click();
		await page.getByText('Stopped by the analyst.').waitFor();
		await page.getByRole('button', { name: 'Go on' }).waitFor();
		await page.getByRole('button', { name: 'Delete this trial…' }).click();
		await page.getByText('This cannot be undone.').waitFor();
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByRole('button', { name: 'Delete for good' }).click();
		await page.getByRole('heading', { name: 'Trials' }).waitFor();
		expect((await app.api('GET', `/api/trials/${body.id}`)).status).to.equal(404);
	});

	it('says when the server does not answer, keeps what was typed, and goes on by itself', async () => {
		const { page } = screen;
		await screen.go('/trials/new?template=candidates');
		await page.getByLabel('What do you want to know?').fill('Is it still there?');
		await app.stop();
		await page.getByText(/Zafra does not answer; trying again/).waitFor({ timeout: 20_000 });
		const failed = page.waitForEvent('requestfailed', (request) => request.method() === 'POST');
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await failed;
		expect(await page.getByLabel('What do you want to know?').inputValue()).to.equal('Is it still there?');
		await app.restart();
		await page.getByText(/Zafra does not answer/).waitFor({ state: 'detached', timeout: 30_000 });
		await page.getByRole('button', { name: 'Start the trial' }).click();
		await page.getByText('The trial was not made.').waitFor();
		expect(await page.getByLabel('What do you want to know?').inputValue()).to.equal('Is it still there?');
	});

	it('leaves a sheet as it is when one of its parts cannot be fetched, and opens the part later', async () => {
		const { page } = screen;
		await screen.go('/trials/1?open=method');
		await app.stop();
		const heading = page.locator('#fairness .bx--accordion__heading');
		await heading.click();
		await page.getByText(/Zafra does not answer; trying again/).waitFor({ timeout: 20_000 });
		await page.locator('#fairness .bx--accordion__heading[aria-expanded=false]').waitFor();
		await page.locator('#method .bx--accordion__heading').click();
		await page.locator('#method .bx--accordion__heading[aria-expanded=true]').waitFor();
		expect(await page.getByRole('heading', { level: 1 }).innerText()).to.match(/Did adding the chat/);
		await app.restart();
		await page.getByText(/Zafra does not answer/).waitFor({ state: 'detached', timeout: 30_000 });
		await screen.openPart('fairness');
	});
});
