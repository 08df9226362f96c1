/** Takes the pictures in docs/screenshots/ from the demonstration data, each at 1280 x 800. */
import { mkdirSync } from 'node:fs';
import { chromium } from 'playwright-core';
import { findChromium } from '../src/lab/browser/find';
import { startApp } from '../test/support/app';
import { until } from '../test/support/world';

const VIEWS: [name: string, path: string, scroll?: string][] = [
	['desk', '/'],
	['client', '/clients/1?open=competitors'],
	['pages', '/pages?site=1'],
	['field', '/field?client=1'],
	['field-sheet', '/field/2', '#releases'],
	['audit', '/audits/1'],
	['worklist', '/worklist'],
	['new-trial', '/trials/new'],
	['trial-sheet', '/trials/1'],
	['which-is-best', '/trials/5'],
	['steps', '/trials/6'],
	['sweep', '/trials/8'],
	['frames-side-by-side', '/trials/3?open=frames', '#frames'],
	['watch', '/watch?since=start'],
	['watched-page', '/watch/1/2?on=phone'],
	['standing', '/standings/3'],
	['load', '/loads/12'],
	['report', '/reports/1'],
	['report-shared', '/reports/1/versions/1/page']
];

mkdirSync('docs/screenshots', { recursive: true });
const app = await startApp({ demo: true });
// The lab needs a moment to start; the pictures show it ready.
await until(async () => (await app.api('GET', '/api/health')).body.runner === 'idle', 30_000, 'the lab to be ready');
// The panel is asked between loads of the lab.
await app.api('POST', '/api/field', { clientId: 1 });
// Evidence is worked out once the lab has nothing else to do.
for (const id of [1, 2, 3, 4, 5, 6, 7, 8])
	await until(
		async () => (await app.api('GET', `/api/trials/${id}/evidence`)).body.pending === false,
		60_000,
		'the evidence'
	);
// The demonstration's reports are frozen once their evidence is there.
await until(
	async () =>
		(await app.api('GET', '/api/reports')).body.reports.some(
			(report: { number: number | null }) => report.number === 1
		),
	60_000,
	'the reports'
);
const browser = await chromium.launch({ executablePath: findChromium()!, args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
for (const [name, path, scroll] of VIEWS) {
	await page.goto(app.url + path, { waitUntil: 'load' });
	await page.waitForTimeout(600);
	if (name === 'field-sheet')
		await page
			.getByRole('table', { name: /did to visitors/ })
			.first()
			.waitFor({ timeout: 60_000 });
	if (scroll && (await page.locator(scroll).count()))
		await page.locator(scroll).evaluate((part) => part.scrollIntoView());
	await page.waitForTimeout(200);
	await page.screenshot({ path: `docs/screenshots/${name}.png` });
}
await browser.close();
await app.end();
process.exit(0);
