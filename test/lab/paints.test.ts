import { expect } from 'chai';
import { launchBrowser, type RunningBrowser } from '../../src/lab/browser/launch';
import { stillPaints } from '../../src/lab/browser/paints';

describe('whether a browser still paints', function () {
	this.timeout(60_000);
	let running: RunningBrowser;
	before(async () => (running = await launchBrowser({})));
	after(() => running.close());

	it('is told by a page of the lab’s own', async () => {
		expect(await stillPaints(running)).to.equal(true);
	});

	it('is no where no frame comes: the page is there, its first paint is not', async () => {
		const { browser } = running;
		const blind = {
			...running,
			browser: Object.assign(Object.create(browser) as typeof browser, {
				// As in a browser without strength: all answers come, but no frame does.
				newContext: async (options: object) => {
					const context = await browser.newContext(options);
					await context.addInitScript('PerformanceObserver.prototype.observe = () => undefined');
					return context;
				}
			})
		};
		expect(await stillPaints(blind)).to.equal(false);
	});
});
