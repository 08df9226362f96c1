/** Side checks in the lab: axe by itself on the same page gives the same list. */
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { chromium } from 'playwright-core';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { findChromium } from '../../src/lab/browser/find';
import { Lab } from '../../src/lab/lab';
import { TEMPLATE_HOSTS, templateSites } from '../support/templateSites';
import { rule, serve, UNWATCHED, type RunningServer } from '../support/world';

const DESKTOP = BUILT_IN_CONDITIONS[1]!;
const QUICK: Conditions = {
	...DESKTOP,
	quietMs: 500,
	network: { roundTripMs: 5, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 }
};
const POOR = `<!doctype html><html><head><title>X</title><meta name="viewport" content="width=device-width, user-scalable=no">
<meta name="robots" content="noindex"></head><body><h1>A</h1><h3>Jumped</h3><img src="/a.png"><a href="/b"></a>
<p style="color:#aaa;background:#fff">Hardly to be read</p><input>
<script src="/old.js"></script></body></html>`;
/** Chromium names it XMLHttpRequestSynchronousInNonWorkerOutsideBeforeUnload. */
const OLD = `const asked = new XMLHttpRequest(); asked.open('GET', '/old.js', false); asked.send();`;
const LEVELS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

describe('side checks', function () {
	this.timeout(120_000);
	let [plain, templates]: (RunningServer | null)[] = [null, null];
	let lab: Lab;
	before(async () => {
		const html = { 'content-type': 'text/html' };
		plain = await serve(({ url }, response) => {
			if (url === '/old.js') return void response.writeHead(200, { 'content-type': 'text/javascript' }).end(OLD);
			response.writeHead(url === '/' ? 200 : 404, html).end(POOR);
		});
		templates = await serve(templateSites);
		const hostMap = [rule('poor.test', plain.port), ...TEMPLATE_HOSTS.map((host) => rule(host, templates!.port))];
		lab = new Lab({ calm: UNWATCHED, hostMap });
	});
	after(async () => {
		await lab.close();
		plain!.close();
		templates!.close();
	});
	const checksOf = async (host: string) => {
		const { record } = await lab.measure({ url: `http://${host}/`, conditions: QUICK, steps: [], sideChecks: true });
		expect(record.failure).to.equal(null);
		return record.sideChecks!;
	};

	it('find what is wrong with the head, headings and links of a poor page', async () => {
		const { head, axe } = await checksOf('poor.test');
		const bad = head.filter(({ isGood }) => !isGood).map(({ check }) => check);
		expect(bad).to.deep.equal([
			...['title', 'description', 'language', 'viewport', 'headings', 'robots', 'links', 'https'],
			'deprecated'
		]);
		expect(head.at(-1)!.value).to.match(/^XMLHttpRequestSynchronous\w+ \(poor\.test\/old\.js\)$/);
		expect(axe!.map(({ id }) => id)).to.include.members(['color-contrast', 'html-has-lang', 'image-alt', 'label']);
	});

	it('agree with axe by itself on a page that nobody here wrote', async () => {
		const host = TEMPLATE_HOSTS[1]!;
		const { axe, version } = await checksOf(host);
		const source = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
		expect(source).to.contain(version);
		const browser = await chromium.launch({
			executablePath: findChromium()!,
			args: ['--no-sandbox', `--host-resolver-rules=MAP ${host}:80 127.0.0.1:${templates!.port}`]
		});
		const { width, height } = DESKTOP.device;
		const page = await browser.newPage({ viewport: { width, height } });
		await page.goto(`http://${host}/`, { waitUntil: 'load' });
		await page.waitForTimeout(500);
		await page.evaluate(source);
		const alone = await page.evaluate(
			(values) =>
				(
					globalThis as unknown as {
						axe: { run(at: Document, how: object): Promise<{ violations: { id: string; nodes: unknown[] }[] }> };
					}
				).axe
					.run(document, { runOnly: { type: 'tag', values }, resultTypes: ['violations'] })
					.then(({ violations }) => violations.map(({ id, nodes }) => [id, nodes.length])),
			LEVELS
		);
		await browser.close();
		expect(axe!.map(({ id, count }) => [id, count])).to.deep.equal(alone);
	});

	it('are made only where somebody asks, and cost the figures nothing', async () => {
		const { record } = await lab.measure({ url: 'http://poor.test/', conditions: QUICK, steps: [] });
		expect(record.sideChecks).to.equal(null);
	});
});
