/**
 * Visitors in real time: a real Chromium opens pages of www.skerry-line.test, a few a minute, scrolls, taps and leaves.
 * `npm run demo:visitors` beside `npm run demo`; it keeps a processor busy, so no trial should run beside it.
 */
import { setTimeout as pause } from 'node:timers/promises';
import { chromium, type Page } from 'playwright-core';
import { pathsOf } from './population';

const port = Number(process.env.ZAFRA_DEMO_PORT ?? 4180);
const tlsPort = Number(process.env.ZAFRA_DEMO_TLS_PORT ?? port + 1);
const EVERY_MS = 15_000;
const AGENTS = {
	phone: 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Mobile Safari/537.36',
	desktop: 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36'
};

/** A browser of its own for each: what it says of itself holds until its last beacon. */
async function visit(path: string, device: keyof typeof AGENTS): Promise<void> {
	const browser = await chromium.launch({
		executablePath: process.env.ZAFRA_CHROMIUM || '/usr/bin/chromium',
		args: [
			'--no-sandbox',
			'--disable-blink-features=AutomationControlled',
			'--ignore-certificate-errors',
			`--user-agent=${AGENTS[device]}`,
			`--host-resolver-rules=MAP *.test:443 127.0.0.1:${tlsPort}, MAP *.test:80 127.0.0.1:${port}`
		]
	});
	try {
		const viewport = device === 'phone' ? { width: 384, height: 810 } : { width: 1420, height: 800 };
		const page = await browser.newPage({ viewport });
		await page.goto(`https://www.skerry-line.test${path}`);
		await read(page);
		await page.goto('about:blank');
		await pause(500);
	} finally {
		await browser.close();
	}
}

async function read(page: Page): Promise<void> {
	await pause(1500);
	await page.mouse.wheel(0, 900);
	await page.mouse.click(200, 300);
	await pause(1500);
}

const say = (words: string) => process.stdout.write(`${words}\n`);
let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (ending = true));
const paths = pathsOf('skerry-line.test').slice(0, 5);
say('Visitors come to www.skerry-line.test, about four a minute. Stop them with Ctrl-C.');
for (let i = 0; !ending; i++) {
	const path = paths[i % paths.length]!;
	await visit(path, i % 3 === 2 ? 'desktop' : 'phone').then(
		() => say(`A visitor read ${path}.`),
		(error: Error) => console.error(`A visitor could not read ${path}: ${error.message.split('\n')[0]}`)
	);
	if (!ending) await pause(EVERY_MS);
}
