import { expect } from 'chai';
import { chromium } from 'playwright-core';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { findChromium } from '../../src/lab/browser/find';
import { Lab } from '../../src/lab/lab';
import { rule, serve, type RunningServer, UNWATCHED } from '../support/world';

const [, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const QUICK: Conditions = { ...DESKTOP, quietMs: 500, capMs: 15_000, network: { ...DESKTOP.network, roundTripMs: 5 } };

/** A page that looks for whatever could tell it that somebody measures, at its start and once it stands. */
const SPY = `<!doctype html><html lang="en"><title>Spy</title><link rel="icon" href="data:,"><script>
const seen = () => ({
	globals: Object.getOwnPropertyNames(globalThis).sort(),
	document: Object.getOwnPropertyNames(document).sort(),
	navigator: Object.getOwnPropertyNames(navigator).sort(),
	attributes: document.documentElement.getAttributeNames(),
	scripts: document.scripts.length,
	styles: document.styleSheets.length + document.adoptedStyleSheets.length,
	marks: performance.getEntriesByType('mark').length + performance.getEntriesByType('measure').length,
	resources: performance.getEntriesByType('resource').map(({ name }) => name),
	natives: [PerformanceObserver, Element.prototype.getBoundingClientRect, requestAnimationFrame, JSON.stringify]
		.map((one) => Function.prototype.toString.call(one).includes('[native code]')),
	traps: ['zafra', 'zafraBusy'].filter((name) => name in globalThis)
});
const first = seen();
addEventListener('load', () => setTimeout(() => fetch('/tell', { method: 'POST', body: JSON.stringify([first, seen()]) }), 100));
</script><body><h1>Nothing to see</h1>`;

describe('the lab’s own world in a page', () => {
	let server: RunningServer;
	let lab: Lab;
	const told: string[] = [];
	before(async () => {
		server = await serve((request, response) => {
			if (request.url !== '/tell') return void response.writeHead(200, { 'content-type': 'text/html' }).end(SPY);
			let body = '';
			request.on('data', (chunk: Buffer) => (body += chunk.toString()));
			request.on('end', () => {
				told.push(body);
				response.writeHead(204).end();
			});
		});
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('site.test', server.port)] });
	});
	after(async () => {
		await lab.close();
		server.close();
	});

	/** What the page sees in a browser that nobody measures in. */
	async function plainly(): Promise<string> {
		const browser = await chromium.launch({
			executablePath: findChromium()!,
			args: ['--no-sandbox', `--host-resolver-rules=MAP site.test 127.0.0.1:${server.port}`]
		});
		try {
			const page = await browser.newPage();
			const sent = page.waitForResponse((response) => response.url().endsWith('/tell'));
			await page.goto('http://site.test/');
			await sent;
			return told.pop()!;
		} finally {
			await browser.close();
		}
	}

	it('shows the page nothing that it does not see elsewhere: no name, no element, no entry, no changed function', async () => {
		const expected = JSON.parse(await plainly()) as unknown;
		const { record } = await lab.measure({
			url: 'http://site.test/',
			conditions: QUICK,
			steps: [{ expect: { selector: 'h1', text: 'Nothing' } }],
			shown: [{ name: 'title', selector: 'h1' }]
		});
		expect(record.status).to.equal('ok');
		expect(told).to.have.length(1);
		expect(JSON.parse(told.pop()!)).to.deep.equal(expected);
		// It did look: what it tells of the page came out of that world.
		expect(record.page!.elements).to.equal(7);
		expect(record.shown[0]!.atMs).to.be.above(0);
		expect(record.steps[0]!.status).to.equal('ok');
	});
});
