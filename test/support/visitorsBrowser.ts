/** A browser of a visitor of the simulated web: no lab, no shaping. */
import { chromium, type Browser } from 'playwright-core';
import { findChromium } from '../../src/lab/browser/find';
import type { RunningWorld } from './world';

export function visitorsBrowser({ port, tlsPort }: RunningWorld): Promise<Browser> {
	return chromium.launch({
		executablePath: findChromium()!,
		args: ['--no-sandbox', `--host-resolver-rules=MAP *.test:443 127.0.0.1:${tlsPort}, MAP *.test:80 127.0.0.1:${port}`]
	});
}
