/** Starting Chromium for measuring: clean, quiet, and with nothing switched that would change how pages load. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser } from 'playwright-core';
import { failure } from '../failure';
import { findChromium } from './find';

/** Chromium's own traffic and its changes of addresses; everything about how pages load stays as it ships. */
const FEATURES_OFF = [
	'HttpsUpgrades',
	'HttpsFirstBalancedModeAutoEnable',
	'OptimizationHints',
	'MediaRouter',
	'DialMediaRouteProvider',
	'Translate',
	'CertificateTransparencyComponentUpdater',
	'InterestFeedContentSuggestions',
	// Frames of other sites share the page's renderer, as they mostly do on phones, and so its slowdown and its log.
	'IsolateOrigins',
	'site-per-process'
];

const SWITCHES = [
	'--headless',
	'--no-sandbox',
	'--disable-gpu',
	'--disable-quic',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync',
	'--disable-default-apps',
	'--disable-extensions',
	'--disable-client-side-phishing-detection',
	'--disable-domain-reliability',
	'--disable-breakpad',
	'--disable-dev-shm-usage',
	'--disable-field-trial-config',
	'--disable-hang-monitor',
	'--disable-ipc-flooding-protection',
	'--disable-popup-blocking',
	'--disable-back-forward-cache',
	'--disable-background-timer-throttling',
	'--disable-backgrounding-occluded-windows',
	'--disable-renderer-backgrounding',
	'--disable-search-engine-choice-screen',
	'--disable-site-isolation-trials',
	'--force-color-profile=srgb',
	'--hide-scrollbars',
	'--metrics-recording-only',
	'--mute-audio',
	'--no-default-browser-check',
	'--no-first-run',
	'--no-service-autorun',
	'--password-store=basic',
	'--use-mock-keychain',
	'--remote-debugging-pipe',
	`--disable-features=${FEATURES_OFF.join(',')}`
];

export interface RunningBrowser {
	browser: Browser;
	/** "Chromium 156.0.8078.79" */
	version: string;
	close(): Promise<void>;
}

export interface LaunchOptions {
	/** SHA-256 hashes (base64) of public keys that are trusted beside the usual ones. */
	trustedKeys?: readonly string[];
}

/** @throws LoadFailure `browser-missing` when Chromium is not there or does not start */
export async function launchBrowser({ trustedKeys = [] }: LaunchOptions = {}): Promise<RunningBrowser> {
	const executablePath = findChromium();
	if (!executablePath) throw failure('browser-missing', 'it is not on this machine');
	const profile = await mkdtemp(join(tmpdir(), 'zafra-lab-'));
	const trust = trustedKeys.length ? [`--ignore-certificate-errors-spki-list=${trustedKeys.join(',')}`] : [];
	try {
		const browser = await chromium.launch({
			executablePath,
			ignoreDefaultArgs: true,
			args: [...SWITCHES, `--user-data-dir=${profile}`, ...trust],
			timeout: 30_000,
			handleSIGINT: false,
			handleSIGTERM: false,
			handleSIGHUP: false
		});
		return {
			browser,
			version: `Chromium ${browser.version()}`,
			async close() {
				await browser.close().catch(() => undefined);
				await removeProfile(profile);
			}
		};
	} catch (error) {
		await removeProfile(profile);
		throw failure('browser-missing', String((error as Error).message).split('\n')[0]);
	}
}

/** Chromium's helpers may still be writing for a moment after it has gone. */
function removeProfile(profile: string): Promise<void> {
	return rm(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 }).catch(() => undefined);
}
