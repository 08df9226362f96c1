/** A clean profile for one load. */
import type { BrowserContext } from 'playwright-core';
import type { Conditions } from '$core/load/conditions/conditions';
import { visitorAgent } from '$core/load/journey/identity';
import { pageProgram } from '../page/bundle';
import type { RunningBrowser } from './launch';

export interface OpenedContext {
	context: BrowserContext;
	/** Null for the browser's own. */
	userAgent: string | null;
}

/** @param proxyPort of the shaped line @param asVisitor without what tells the lab */
export async function openContext(
	running: RunningBrowser,
	proxyPort: number,
	{ device }: Conditions,
	asVisitor: boolean
): Promise<OpenedContext> {
	const major = running.browser.version().split('.')[0]!;
	const userAgent = asVisitor ? visitorAgent(device.mobile, major) : device.userAgent?.replace('{major}', major);
	const context = await running.browser.newContext({
		// Without the last entry the browser would go around the proxy for local addresses.
		proxy: { server: `socks5://127.0.0.1:${proxyPort}`, bypass: '<-loopback>' },
		viewport: { width: device.width, height: device.height },
		screen: { width: device.width, height: device.height },
		deviceScaleFactor: device.pixelRatio,
		isMobile: device.mobile,
		hasTouch: device.touch,
		locale: 'en-GB',
		acceptDownloads: false,
		serviceWorkers: 'allow',
		...(userAgent ? { userAgent } : {})
	});
	if (asVisitor) await context.addInitScript(pageProgram('hideAutomation'));
	return { context, userAgent: userAgent ?? null };
}
