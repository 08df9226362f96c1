/** A browser that looks at the app as the analyst does. */
import { readFileSync } from 'node:fs';
import { chromium, type Browser, type Locator, type Page } from 'playwright-core';
import { findChromium } from '../../src/lab/browser/find';
import type { TestApp } from './app';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
/** Rules whose outcome depends on colours: a theme changes nothing else. */
export const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

export interface Screen {
	browser: Browser;
	page: Page;
	/** Errors of scripts and of the console, but for answers that a test provokes. */
	troubles: string[];
	/** Addresses that were requested. */
	requested: string[];
	/** Go somewhere and wait until scripts have taken over. */
	go(path: string): Promise<void>;
	/**
	 * What axe finds against WCAG 2.2 AA, in short. @param within a selector; the whole page without
	 * @param rules all of that level without; those that colours can break when another theme is on
	 */
	violations(within?: string, rules?: readonly string[]): Promise<string[]>;
	/** Tick or untick Carbon's checkbox, which hides the native one under its label. */
	tick(name: string | RegExp, on: boolean): Promise<void>;
	/** Open a part of a sheet, unless it is. @returns the part */
	openPart(id: string): Promise<Locator>;
	close(): Promise<void>;
}

/** Screens that are open, so that a failed test can say what was on them. */
const open = new Set<{ page: Page; app: TestApp }>();

/** What was on screen when a test failed, and what the app last said: printed by the root hooks. */
export async function describeScreens(): Promise<string> {
	const told = [...open].map(async ({ page, app }) => {
		const text = await page
			.locator('body')
			.innerText({ timeout: 5000 })
			.catch((error: Error) => error.message);
		return `${page.url()}\n${text.replace(/\n+/g, '\n').slice(0, 2500)}\nThe app said: ${app.words().slice(-1500)}`;
	});
	return (await Promise.all(told)).join('\n');
}

export async function openScreen(app: TestApp): Promise<Screen> {
	const browser = await chromium.launch({ executablePath: findChromium()!, args: ['--no-sandbox'] });
	const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
	// The compiler of the tests names functions by a helper that pages do not have.
	await page.addInitScript({ content: 'globalThis.__name ??= (value) => value' });
	const [troubles, requested]: [string[], string[]] = [[], []];
	page.on('request', (request) => requested.push(request.url()));
	page.on('pageerror', (error) => troubles.push(error.message));
	page.on('response', (response) => {
		if (response.status() >= 500) troubles.push(`${response.status()} ${response.url()}`);
	});
	page.on('console', (message) => {
		const isProvoked = /status of (422|404)|ERR_CONNECTION_REFUSED|ERR_INCOMPLETE|ERR_EMPTY/.test(message.text());
		if (message.type() === 'error' && !isProvoked) troubles.push(message.text());
	});
	const shown = { page, app };
	open.add(shown);
	const part = (id: string) => page.locator(`.bx--accordion__item#${id}`);

	return {
		browser,
		page,
		troubles,
		requested,
		async go(path) {
			// The frame of every page begins to listen once all of it has been taken over.
			const takenOver = page.waitForRequest((request) => request.url().endsWith('/api/events'));
			await page.goto(app.url + path);
			await takenOver;
		},
		async violations(within = 'html', rules = RULES) {
			// What is out of sight has no styles until it comes near: it is judged as it will look then.
			await page.addStyleTag({ content: '* { content-visibility: visible !important; }' });
			// A bar that stays in sight lies over whatever is scrolled under it just then: no target is smaller for that.
			await page.evaluate(() => scrollTo({ top: 0, behavior: 'instant' }));
			await page.evaluate(AXE);
			return page.evaluate(findViolations, { within, rules: [...rules] });
		},
		async tick(name, on) {
			const box = page.getByRole('checkbox', { name, exact: typeof name === 'string' });
			if ((await box.isChecked()) === on) return;
			await box.focus();
			await page.keyboard.press('Space');
		},
		async openPart(id) {
			const heading = part(id).locator('.bx--accordion__heading');
			if ((await heading.getAttribute('aria-expanded')) === 'false') await heading.click();
			await part(id).locator('section > :not(h2, .bx--inline-loading)').first().waitFor();
			return part(id);
		},
		close() {
			open.delete(shown);
			return browser.close();
		}
	};
}

async function findViolations({ within, rules }: { within: string; rules: string[] }): Promise<string[]> {
	type Axe = {
		run(within: string, options: object): Promise<{ violations: { id: string; nodes: { target: string[] }[] }[] }>;
	};
	const { axe } = globalThis as unknown as { axe: Axe };
	const { violations } = await axe.run(within, { runOnly: rules, resultTypes: ['violations'] });
	return violations.map(({ id, nodes }) => {
		const where = nodes.slice(0, 3).map(({ target }) => target.join(' '));
		return `${id}: ${where.join(' | ')}`;
	});
}
