import { chromium } from 'playwright-core';
import { startApp } from '../test/support/app';
const app = await startApp({ demo: true });
const browser = await chromium.launch({ executablePath: '/usr/lib/chromium/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const narrow = async (name: string, path: string) => { await page.setViewportSize({ width: 400, height: 800 }); await page.emulateMedia({ colorScheme: 'dark' }); await page.goto(app.url + path); await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: true }); await page.setViewportSize({ width: 1280, height: 800 }); await page.emulateMedia({ colorScheme: 'light' }); };
const shot = async (name: string, path: string, wait = 600) => {
	await page.goto(app.url + path);
	await page.waitForTimeout(wait);
	await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: name.endsWith('-full') });
};
const clients = (await (await fetch(app.url + '/api/clients')).json()) as { id: number; name: string }[];
const skerry = clients.find(({ name }) => name === 'Skerry Line')!.id;
const sites = (await (await fetch(`${app.url}/api/sites?client=${skerry}`)).json()) as { id: number; host: string }[];
for (const arg of process.argv.slice(2)) {
	const [name, path] = arg.split('=') as [string, string];
	await (name.startsWith('narrow') ? narrow : shot)(name, path.replace('SKERRY', String(skerry)).replace('SITE', String(sites[0]!.id)).replace('QQ', '?').replace('EE', '='), name.includes('wait') ? 9000 : 600);
}
await browser.close();
await app.end();
process.exit();
