/** Starting Chromium for measuring: clean, quiet, sandboxed, and with nothing that changes how pages load. */
import { mkdirSync, writeFileSync, chownSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { chromium, type Browser, type CDPSession } from 'playwright-core';
import { BROWSER_SWITCHES } from '$core/load/conditions/browserSwitches';
import { failure } from '../failure';
import { asAccount, browserAccount, type Account } from './account';
import { findChromium } from './find';
import { endGroup, makeProfile, notePid, removeProfile } from './profiles';
import { startProblem } from './startProblem';

export interface RunningBrowser {
	browser: Browser;
	/** "Chromium 156.0.8078.79" */
	version: string;
	/** Keys that it trusts beside the usual ones. */
	trusts: readonly string[];
	/** Whether pages run in Chromium's sandbox. */
	sandboxed: boolean;
	/** What it was started with, but for its profile and trusted keys. */
	switches: string[];
	/** Told of each tab that ends by itself; `killed` when the machine or somebody ended its process. */
	onTabGone(listener: (tab: { killed: boolean }) => void): () => void;
	/** End it whatever it does, and remove its profile. */
	close(): Promise<void>;
}

export interface LaunchOptions {
	/** SHA-256 hashes (base64) of public keys that are trusted beside the usual ones. */
	trustedKeys?: readonly string[];
	/** Marks the profiles of this lab, so that the next one can remove what is left of a killed one. */
	profileLabel?: string;
}

/** On a busy machine a start takes some seconds; one that takes longer hangs, and the next one does not. */
const START_WITHIN_MS = 15_000;
const MOST_STARTS = 3;
const CLOSE_WITHIN_MS = 5000;
const PREFERENCES = { webrtc: { ip_handling_policy: 'disable_non_proxied_udp' } };

/** Set once this machine has shown that Chromium does not start with its sandbox. */
let sandboxWorks = true;

/** @throws LoadFailure `browser-missing` when Chromium is not there, `browser-start` when it does not start */
export async function launchBrowser(options: LaunchOptions = {}): Promise<RunningBrowser> {
	const program = findChromium();
	if (!program) throw failure('browser-missing');
	const account = browserAccount();
	const rootOnly = process.getuid?.() === 0 && !account;
	if (sandboxWorks && !rootOnly)
		try {
			return await startPatiently(program, account, options, true);
		} catch (error) {
			if (!/sandbox|zygote|namespace/i.test((error as Error).message)) throw startFailure(error);
			sandboxWorks = false;
		}
	try {
		return await startPatiently(program, account, options, false);
	} catch (error) {
		throw startFailure(error);
	}
}

/** A browser that does not answer after its start is ended and started again; other trouble is thrown at once. */
async function startPatiently(...how: Parameters<typeof start>): Promise<RunningBrowser> {
	for (let tries = 1; ; tries++)
		try {
			return await start(...how);
		} catch (error) {
			if (tries === MOST_STARTS || !/timeout|timed out/i.test((error as Error).message)) throw error;
		}
}

function startFailure(error: unknown) {
	return failure('browser-start', startProblem((error as Error).message));
}

async function start(
	program: string,
	account: Account | null,
	options: LaunchOptions,
	sandboxed: boolean
): Promise<RunningBrowser> {
	const { trustedKeys = [], profileLabel = `p${process.pid}` } = options;
	const profile = makeProfile(profileLabel, account);
	writePreferences(profile, account);
	const { command, before } = account ? asAccount(account, program) : { command: program, before: [] };
	const trust = trustedKeys.length ? [`--ignore-certificate-errors-spki-list=${trustedKeys.join(',')}`] : [];
	const switches = ['--remote-debugging-pipe', ...BROWSER_SWITCHES, ...(sandboxed ? [] : ['--no-sandbox'])];
	const args = [...before, ...switches, `--user-data-dir=${profile}`, ...trust];
	try {
		const browser = await chromium.launch({
			executablePath: command,
			ignoreDefaultArgs: true,
			args,
			timeout: START_WITHIN_MS,
			...(account ? { env: { ...environmentOf(process.env), HOME: profile, TMPDIR: profile } } : {}),
			handleSIGINT: false,
			handleSIGTERM: false,
			handleSIGHUP: false
		});
		return await watched(browser, profile, { sandboxed, switches, trusts: trustedKeys });
	} catch (error) {
		await removeProfile(profile);
		throw error;
	}
}

/** What the browser needs of the environment, and no settings of Zafra's or of whoever started it. */
function environmentOf({ PATH, LANG, LC_ALL, TZ }: NodeJS.ProcessEnv): Record<string, string> {
	return Object.fromEntries(Object.entries({ PATH, LANG, LC_ALL, TZ }).filter(([, value]) => value)) as Record<
		string,
		string
	>;
}

function writePreferences(profile: string, account: Account | null): void {
	const file = join(profile, 'Default', 'Preferences');
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(file, JSON.stringify(PREFERENCES));
	if (!account) return;
	for (const path of [dirname(file), file]) chownSync(path, account.uid, account.gid);
}

async function watched(
	browser: Browser,
	profile: string,
	started: Pick<RunningBrowser, 'sandboxed' | 'switches' | 'trusts'>
): Promise<RunningBrowser> {
	const session = await browser.newBrowserCDPSession();
	const pid = await browserPid(session);
	if (pid) notePid(profile, pid);
	await session.send('Target.setDiscoverTargets', { discover: true });
	return {
		browser,
		version: `Chromium ${browser.version()}`,
		...started,
		onTabGone(listener) {
			const hear = ({ status }: { status: string }) => listener({ killed: status === 'killed' });
			session.on('Target.targetCrashed', hear);
			return () => void session.off('Target.targetCrashed', hear);
		},
		async close() {
			let timer: NodeJS.Timeout | undefined;
			const late = new Promise((resolve) => (timer = setTimeout(resolve, CLOSE_WITHIN_MS)));
			await Promise.race([browser.close().catch(() => undefined), late]);
			clearTimeout(timer);
			if (pid) endGroup(pid);
			await removeProfile(profile);
		}
	};
}

async function browserPid(session: CDPSession): Promise<number | null> {
	const { processInfo } = await session.send('SystemInfo.getProcessInfo');
	return processInfo.find((info) => info.type === 'browser')?.id ?? null;
}
