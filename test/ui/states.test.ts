import { expect } from 'chai';
import type { Locator } from 'playwright-core';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import { addLargestTrial, fillArchive, fillLoads } from '../../bench/archive';
import { openDatabase, type Db } from '../../src/lib/server/base/db/connection';
import { insertLoad } from '../../src/lib/server/rooms/loads/loads';
import { createTrial, startTrial } from '../../src/lib/server/rooms/trials/commands';
import { setTrialStatus } from '../../src/lib/server/rooms/trials/queries/trials';
import { startApp, type TestApp } from '../support/app';
import { FAILED, measuredLoad } from '../support/queue';
import { openScreen, type Screen } from '../support/screen';
import { until } from '../support/world';

const ids = { largest: 0, failed: 0, waiting: 0, draft: 0, queued: 0, failedLoad: 0, newest: 0 };

function make(db: Db, question: string, extra: object = {}): number {
	const arms = [
		{ name: 'As it is', url: 'https://skerry-line.test/', baseline: true },
		{ name: 'With <b>chat</b> & a very long name that does not fit into a narrow column', url: 'https://b.test/' }
	];
	const input = {
		question,
		kind: 'side-by-side',
		arms,
		conditions: ['phone', 'desktop'],
		rounds: 6,
		warmups: 0,
		...extra
	};
	return createTrial(db, v.parse(NewTrialInput, input));
}

/** Press the head of a column, which may have to wake first. @returns how its table is sorted then */
async function pressHead(head: Locator): Promise<string | null> {
	const before = await head.getAttribute('aria-sort');
	await head.getByRole('button').click();
	await until(async () => (await head.getAttribute('aria-sort')) !== before, 10_000, 'the table to be sorted');
	return head.getAttribute('aria-sort');
}

/** A folder as it is found on a bad day: everything is in some state, and the lab is off. */
function prepare(folder: string): void {
	const db = openDatabase(folder);
	ids.newest = fillArchive(db, 30, 6);
	fillLoads(db, 40);
	ids.largest = addLargestTrial(db);
	ids.failed = make(db, 'Is the dead page slower?');
	setTrialStatus(db, ids.failed, 'failed', 'no-load-succeeded');
	ids.waiting = make(db, 'Did Larder help?', { kind: 'before-after' });
	startTrial(db, ids.waiting);
	setTrialStatus(db, ids.waiting, 'waiting');
	ids.draft = make(db, 'Is a draft a trial?');
	ids.queued = make(db, 'Does it wait for the lab?');
	startTrial(db, ids.queued);
	const nowhere = { jobId: null, slot: null, conditionId: 'desktop', conditionsHash: null, clientId: null };
	ids.failedLoad = insertLoad(db, nowhere, measuredLoad({ ...FAILED, url: 'https://b.test/' }));
	db.close();
}

/** The library's markup of states that no screen of the demonstration may be in just now. */
const STATES_OF_CONTROLS = `
	${['primary', 'tertiary', 'ghost', 'danger', 'danger--tertiary', 'danger--ghost', 'secondary']
		.map((kind) => `<button class="bx--btn bx--btn--${kind}" disabled>Begin ${kind}</button>`)
		.join('')}
	<div class="bx--progress-bar"><div class="bx--progress-bar__label">12 of 40</div>
		<div class="bx--progress-bar__helper-text">3 min left</div></div>
	<div class="bx--form-item"><label class="bx--label bx--label--disabled">Name</label>
		<input class="bx--text-input" value="typed" disabled><input class="bx--text-input" value="typed"></div>
	<div class="bx--inline-loading"><p class="bx--inline-loading__text">Worked out</p></div>`;

/** Contrast of each text with what lies behind it (WCAG 2.2, relative luminance and contrast ratio). */
function contrastOfStates(markup: string): [string, number][] {
	const box = document.createElement('div');
	box.innerHTML = markup;
	document.querySelector('main')!.prepend(box);
	const numbers = (colour: string) => (colour.match(/[\d.]+/g) ?? []).map(Number);
	const luminance = (colour: string) => {
		const [r = 0, g = 0, b = 0] = numbers(colour)
			.slice(0, 3)
			.map((value) => value / 255)
			.map((part) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4));
		return 0.2126 * r + 0.7152 * g + 0.0722 * b;
	};
	const behind = (element: Element): string => {
		const colour = getComputedStyle(element).backgroundColor;
		const isClear = numbers(colour)[3] === 0;
		return isClear && element.parentElement ? behind(element.parentElement) : colour;
	};
	const texts = [...box.querySelectorAll('button, input, label, p, div')].filter(
		(element) => element.tagName === 'INPUT' || (element.children.length === 0 && element.textContent!.trim())
	);
	const ratios = texts.map((element): [string, number] => {
		const [low, high] = [luminance(getComputedStyle(element).color), luminance(behind(element))].sort((a, b) => a - b);
		return [`${element.className} ${element.textContent}`, (high! + 0.05) / (low! + 0.05)];
	});
	box.remove();
	return ratios;
}

describe('states of the screens', () => {
	let app: TestApp;
	let screen: Screen;
	before(async () => {
		app = await startApp({ environment: { ZAFRA_RUNNER: 'off' }, prepare });
		screen = await openScreen(app);
	});
	after(async () => {
		await screen?.close();
		await app?.end();
	});
	const region = (name: string) => screen.page.getByRole('region', { name, exact: true });

	it('puts on the Desk what needs the analyst first, then what runs, then what was answered', async () => {
		const { page } = screen;
		await screen.go('/');
		const headings = await page.locator('main h2').allInnerTexts();
		expect(headings.slice(0, 3)).to.deep.equal(['Needs you', 'In the lab now', 'Answered, not read yet']);
		const needs = await region('Needs you').innerText();
		expect(needs).to.match(/Is the dead page slower\?\s+Failed · /);
		expect(needs).to.match(/Did Larder help\?\s+Waits for you/);
		expect(needs).to.match(/Is a draft a trial\?\s+Draft/);
		expect(await region('In the lab now').innerText()).to.match(/0 of \d+ loads/);
		await page.getByText('The lab is off: trials wait in the queue.').waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('marks an answer as read once it was looked at', async () => {
		const { page } = screen;
		const question = `Is page ${ids.newest - 1} faster without its carousel?`;
		await screen.go('/');
		const noted = page.waitForResponse((response) => response.url().endsWith('/read'));
		await region('Answered, not read yet').getByRole('link', { name: question }).click();
		await page.getByRole('heading', { name: question }).waitFor();
		await noted;
		await screen.go('/');
		expect(await region('Answered, not read yet').getByRole('link', { name: question }).count()).to.equal(0);
		await region('Answered lately').getByRole('link', { name: question }).waitFor();
	});

	it('says of a failed trial what happened, and shows its board without marks', async () => {
		const { page } = screen;
		await screen.go(`/trials/${ids.failed}`);
		await page
			.getByRole('alert')
			.getByText(/^Not one load succeeded/)
			.waitFor();
		expect(await page.getByRole('table', { name: /What is decided on/ }).count()).to.equal(2);
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('asks before the next stage what was changed', async () => {
		const { page } = screen;
		await screen.go(`/trials/${ids.waiting}`);
		await page.getByRole('heading', { name: /^Next stage:/ }).waitFor();
		await page.getByLabel('What was changed?').waitFor();
		expect(await page.getByRole('button', { name: /^Start “/ }).count()).to.equal(1);
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('shows names with markup as text, and long ones whole', async () => {
		const { page } = screen;
		await screen.go(`/trials/${ids.draft}?open=arms`);
		const arms = await (await screen.openPart('arms')).innerText();
		expect(arms).to.include('With <b>chat</b> & a very long name that does not fit into a narrow column');
		await page.setViewportSize({ width: 400, height: 800 });
		expect(await page.evaluate(() => document.documentElement.scrollWidth)).to.be.at.most(400);
		await page.setViewportSize({ width: 1280, height: 800 });
	});

	it('says of a failed load what happened, why and what to do, and hides what was not measured', async () => {
		const { page } = screen;
		await screen.go(`/loads/${ids.failedLoad}`);
		const alert = page.getByRole('alert');
		expect(await alert.innerText()).to.match(/This load failed\. b\.test refused the connection\.\s+Check it\./);
		expect(await page.locator('#timeline').count()).to.equal(0);
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('shows the largest trial as one table that sorts by any metric, and its loads in pages', async () => {
		const { page } = screen;
		await screen.go(`/trials/${ids.largest}`);
		const table = page.getByRole('table', { name: 'Shifts, Phone' });
		expect(await table.locator('tbody tr').count()).to.equal(7);
		// What differs is said of each; the rest is named together.
		await page
			.getByText(/^“Builder 2” is slower than “Builder 1”\.$/)
			.first()
			.waitFor();
		await page
			.getByText(/^No difference that matters: Builder 3, Builder 4.* and Builder 8\.$/)
			.first()
			.waitFor();
		const first = () => table.locator('tbody tr').first().getByRole('rowheader').innerText();
		expect(await first()).to.equal('Builder 2');
		expect(await pressHead(table.getByRole('columnheader', { name: 'Largest paint' }))).to.equal('ascending');
		expect(await first()).to.not.equal('Builder 2');
		// The interval of a mark is read by the keyboard too.
		await table.getByRole('link', { name: /Builder 2: Largest Contentful Paint/ }).focus();
		await page
			.getByText(/^Largest Contentful Paint: “Builder 2” is slower than “Builder 1”: /)
			.first()
			.waitFor();
		const loads = await screen.openPart('loads');
		expect(await loads.locator('tbody tr').count()).to.equal(25);
		await loads.getByText('1–25 of 384 items').waitFor();
		await loads.getByRole('button', { name: 'Next page' }).click();
		await loads.getByText('26–50 of 384 items').waitFor();
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('sorts a table by its heads and says so', async () => {
		await screen.go(`/trials/${ids.largest}?open=loads`);
		const loads = await screen.openPart('loads');
		const heads = loads.getByRole('columnheader', { name: 'LCP' });
		const values = async () =>
			(await loads.locator('tbody tr td:nth-child(6)').allInnerTexts()).map((text) => parseFloat(text));
		await pressHead(heads);
		const falling = await values();
		expect(falling).to.deep.equal([...falling].sort((a, b) => b - a));
		await pressHead(heads);
		const rising = await values();
		expect(rising).to.deep.equal([...rising].sort((a, b) => a - b));
		expect(rising[0]).to.be.below(falling[0]!);
	});

	it('pages through the lists, and keeps the page in the address', async () => {
		const { page } = screen;
		await screen.go('/trials');
		expect(await page.locator('tbody tr').count()).to.equal(25);
		await page.getByRole('button', { name: 'Next page' }).click();
		await page.waitForURL(/page=2/);
		await page.waitForFunction(() => document.querySelectorAll('tbody tr').length < 25);
		await screen.go('/loads?page=2');
		expect(await page.locator('tbody tr').count()).to.equal(16);
	});

	it('has ten trials to a page on a phone, and pages through all of them', async () => {
		const userAgent = 'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 Chrome/156.0.0.0 Mobile Safari/537.36';
		const phone = await screen.browser.newPage({ userAgent, viewport: { width: 384, height: 810 } });
		const questions = new Set<string>();
		let total = 0;
		for (let at = 1; at === 1 || questions.size < total; at++) {
			await phone.goto(`${app.url}/trials?page=${at}`);
			const shown = await phone.locator('tbody tr a[data-row-link]').allInnerTexts();
			total = Number(/of (\d+) items/.exec(await phone.locator('main').innerText())![1]);
			expect(shown.length).to.equal(Math.min(10, total - questions.size));
			for (const question of shown) questions.add(question);
		}
		await phone.close();
		expect(total).to.be.above(30);
	});

	it('filters by the tone of the answer and clears all filters at once', async () => {
		const { page } = screen;
		await screen.go('/trials');
		await page.getByLabel('Answer').selectOption('worse');
		await page.waitForURL(/verdict=worse/);
		await page.getByPlaceholder('Question, client or address').fill('no such words');
		await page.getByText('No trial fits.').waitFor();
		await page.getByRole('button', { name: 'Show all' }).click();
		await page.waitForURL((url) => url.search === '');
		expect(await page.locator('tbody tr').count()).to.equal(25);
	});

	it('asks before a load is deleted, and deletes only that', async () => {
		const { page } = screen;
		await screen.go('/loads');
		const rows = page.locator('tbody tr');
		const before = await page.getByText(/of \d+ items/).innerText();
		await rows
			.first()
			.getByRole('button', { name: /^Delete/ })
			.click();
		await page.getByRole('dialog').getByText('This cannot be undone.').waitFor();
		await page.getByRole('button', { name: 'Cancel' }).click();
		expect(await page.getByText(/of \d+ items/).innerText()).to.equal(before);
		await rows
			.first()
			.getByRole('button', { name: /^Delete/ })
			.click();
		await page.getByRole('button', { name: 'Delete for good' }).click();
		await page.getByText('of 40 items').waitFor();
	});

	it('moves nothing for those who asked for less motion', async () => {
		const { page } = screen;
		await page.emulateMedia({ reducedMotion: 'reduce' });
		await screen.go(`/trials/${ids.draft}`);
		const durations = await page.evaluate(() =>
			[...document.querySelectorAll('*')].map((element) => parseFloat(getComputedStyle(element).transitionDuration))
		);
		expect(Math.max(...durations)).to.be.at.most(0.001);
		await page.emulateMedia({ reducedMotion: null });
	});

	it('can be read in every state of a control, in both schemes: disabled, under way, typed', async () => {
		const { page } = screen;
		await screen.go('/workshop/lab');
		for (const colorScheme of ['light', 'dark'] as const) {
			await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
			// Colours that are still changing over have no contrast to speak of.
			await page.evaluate(async () => {
				await new Promise((next) => requestAnimationFrame(() => requestAnimationFrame(next)));
				await Promise.all(document.getAnimations().map(({ finished }) => finished.catch(() => undefined)));
			});
			const ratios = await page.evaluate(contrastOfStates, STATES_OF_CONTROLS);
			// WCAG 2.2, 1.4.3 asks 4.5 of text, and nothing of what is disabled: the house asks it of both.
			for (const [what, ratio] of ratios) expect(ratio, `${what}, ${colorScheme}`).to.be.at.least(4.5);
			expect(ratios).to.have.length.above(9);
		}
	});

	it('shows a typed number whole', async () => {
		const { page } = screen;
		await screen.go('/clients/new');
		await page.getByRole('button', { name: 'Add a target' }).click();
		const field = page.getByLabel(/^Good enough/);
		await field.fill('24000');
		const room = await field.evaluate((input: HTMLInputElement) => {
			const { paddingLeft, paddingRight, font } = getComputedStyle(input);
			const canvas = document.createElement('canvas').getContext('2d')!;
			canvas.font = font;
			return input.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight) - canvas.measureText('24000').width;
		});
		expect(room).to.be.at.least(0);
	});

	it('folds the rail and still names its sections', async () => {
		const { page } = screen;
		await screen.go('/');
		await page.getByRole('button', { name: 'Fold the rail' }).click();
		const rail = await page.getByRole('navigation', { name: 'Sections' }).boundingBox();
		expect(rail!.width).to.be.at.most(60);
		await page.locator('.rail').getByTitle('Workshop').click();
		await page.getByRole('heading', { name: 'Workshop' }).waitFor();
		expect(await screen.violations()).to.deep.equal([]);
		await page.getByRole('button', { name: 'Widen the rail' }).click();
	});

	it('skips to the content by the first press of the tab key', async () => {
		const { page } = screen;
		await screen.go('/workshop');
		await page.keyboard.press('Tab');
		expect(await page.evaluate(() => document.activeElement?.textContent?.trim())).to.equal('Skip to the content');
		await page.keyboard.press('Enter');
		expect(await page.evaluate(() => document.activeElement?.id)).to.equal('content');
		expect(screen.troubles).to.deep.equal([]);
	});
});
