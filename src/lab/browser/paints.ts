/** Whether a browser still paints at all: asked after a load in which nothing was painted. */
import type { RunningBrowser } from './launch';
import { within } from './deadlines';

/** A page of the lab's own, which needs no network. */
const CONTROL_PAGE = 'data:text/html,<!doctype html><title>Control</title><h1>Painted</h1>';
/** Long after the first frame of a page of one word (house). */
const PAINTS_WITHIN_MS = 5000;

/** Looks at the browser alone, never at the page that was loaded before. */
export async function stillPaints({ browser }: RunningBrowser): Promise<boolean> {
	const painted = async () => {
		const context = await browser.newContext({ viewport: { width: 400, height: 300 } });
		try {
			const page = await context.newPage();
			await page.goto(CONTROL_PAGE);
			return await page.evaluate(
				() =>
					new Promise<boolean>((painted) =>
						new PerformanceObserver(
							(list) => list.getEntriesByName('first-contentful-paint').length && painted(true)
						).observe({ type: 'paint', buffered: true })
					)
			);
		} finally {
			await context.close();
		}
	};
	return within(painted(), PAINTS_WITHIN_MS).catch(() => false);
}
