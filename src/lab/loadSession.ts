/** One load, from an empty profile to its record. */
import { readFileSync } from 'node:fs';
import type { BrowserContext, CDPSession, Page } from 'playwright-core';
import type { Conditions } from '../core/load/conditions';
import type { FailureReason, LoadRecord, MeasuredLoad } from '../core/load/record';
import { failedRecord, fillFromPage, fillWeights } from './assemble';
import { calibrate, setSlowdown, timeLoop, type SpeedBook } from './browser/cpu';
import type { RunningBrowser } from './browser/launch';
import { CoverageCollector, type UnusedBytes } from './collect/coverage';
import { NetworkCollector } from './collect/network';
import { parsePageFacts, type PageFacts } from './collect/pageFacts';
import { waitUntilSettled } from './collect/settle';
import { failure, failureOfNavigation, LoadFailure } from './failure';
import { developFrames } from './frames/develop';
import { Screencast } from './frames/screencast';
import type { ShapedNetwork } from './shaper/shaper';

const WORLD = 'zafra';
const IN_PAGE = readFileSync(new URL('./collect/inPage.js', import.meta.url), 'utf8');
/** Chromium opens no more sockets than this through one proxy. */
const MOST_SOCKETS = 32;
/** Longest time for taking things out of a page that has settled. */
const COLLECT_WITHIN_MS = 10_000;
const PICTURE_QUALITY = 60;

/** `bare` leaves out frames and coverage: to measure what collecting them costs. */
export type Collects = 'full' | 'bare';

export class LoadSession {
	#context: BrowserContext | null = null;
	#state: { loaded: boolean; busyAt: number; ended: Promise<never> };
	#endWith: (error: LoadFailure) => void = () => undefined;
	#worldId: number | null = null;
	#download: string | null = null;
	#consoleErrors: string[] = [];
	#documents = 0;

	constructor(
		private readonly running: RunningBrowser,
		private readonly network: ShapedNetwork,
		private readonly speeds: SpeedBook,
		private readonly conditions: Conditions,
		private readonly address: URL,
		private readonly startedAt: Date,
		private readonly collects: Collects
	) {
		const ended = new Promise<never>((_, reject) => (this.#endWith = reject));
		// Whoever races against `ended` sees the failure; when nobody does, it is no unhandled rejection.
		ended.catch(() => undefined);
		this.#state = { loaded: false, busyAt: performance.now(), ended };
	}

	async run(): Promise<MeasuredLoad> {
		const lost = () => this.#endWith(failure('browser-killed'));
		this.running.browser.on('disconnected', lost);
		try {
			return await Promise.race([this.#measure(), this.#state.ended]);
		} catch (error) {
			if (error instanceof LoadFailure) throw error;
			if (!this.running.browser.isConnected()) throw failure('browser-killed');
			throw error;
		} finally {
			this.running.browser.off('disconnected', lost);
		}
	}

	async end(): Promise<void> {
		await this.#context?.close().catch(() => undefined);
		await this.network.close();
	}

	async #measure(): Promise<MeasuredLoad> {
		const record = failedRecord(this.address.href, this.conditions, this.startedAt, failure('internal').reason);
		const page = await this.#openPage(record);
		const session = await this.#context!.newCDPSession(page);
		const mainFrameId = await this.#prepare(session, page);
		const network = new NetworkCollector(session, () => mainFrameId);
		await session.send('Network.enable');
		const { device } = this.conditions;
		const calibration = await calibrate(session, device.targetSpeed, this.speeds);
		record.environment.machineSpeed.before = calibration.machineSpeed;
		record.environment.slowdown = calibration.slowdown;
		record.environment.reachedSpeed = calibration.reachedSpeed;
		if (calibration.note) record.environment.notes.push(calibration.note);
		const screencast = new Screencast(session);
		const coverage = new CoverageCollector(session);
		if (this.collects === 'full') {
			await screencast.start();
			await coverage.start();
		}

		const deadline = performance.now() + this.conditions.capMs;
		try {
			await this.#navigate(session, network, deadline);
			const settled = await waitUntilSettled(session, network, this.#state, this.conditions.quietMs, deadline);
			const document = network.documentResponse;
			if (document && document.status >= 400) throw failure('http-status', String(document.status));
			if (settled.stuck) throw failure('time-out', 'a script kept its main thread busy');
			if (!settled.loaded) throw failure('time-out', this.#whatIsMissing(network));
			record.capped = settled.capped;
			if (settled.capped)
				record.environment.notes.push(
					`The page was still busy after ${this.conditions.capMs / 1000} s; the load was ended there.`
				);
			const facts = await this.#collect(session);
			const unused = this.collects === 'full' ? await this.#unused(coverage) : null;
			// Taking the picture repaints the page at another scale: the screencast must not see it.
			await screencast.stop();
			const picture = await this.#takePicture(session);
			record.environment.machineSpeed.after = await this.#speedAfter(session, calibration.slowdown);
			record.figures.unusedJs = unused?.script ?? null;
			record.figures.unusedCss = unused?.style ?? null;
			return await this.#finish(record, network, screencast, facts, picture, page.url());
		} catch (error) {
			if (!(error instanceof LoadFailure) || error.reason.code === 'browser-killed') throw error;
			return this.#finishFailed(record, network, error.reason);
		}
	}

	async #openPage(record: LoadRecord): Promise<Page> {
		const { device } = this.conditions;
		const major = this.running.browser.version().split('.')[0]!;
		const userAgent = device.userAgent?.replace('{major}', major);
		this.#context = await this.running.browser.newContext({
			// Without the last entry the browser would go around the proxy for local addresses.
			proxy: { server: `socks5://127.0.0.1:${this.network.port}`, bypass: '<-loopback>' },
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
		const page = await this.#context.newPage();
		this.#context.on('page', (popup) => void popup.close().catch(() => undefined));
		page.on('crash', () => this.#endWith(failure('crash')));
		page.on('download', (download) => (this.#download = download.suggestedFilename()));
		page.on('console', (message) => {
			if (message.type() === 'error' && this.#consoleErrors.length < 50)
				this.#consoleErrors.push(message.text().slice(0, 500));
		});
		page.on('pageerror', (error) => {
			if (this.#consoleErrors.length < 50) this.#consoleErrors.push(String(error.message).slice(0, 500));
		});
		record.environment.browser = this.running.version;
		record.environment.userAgent = userAgent ?? 'the browser’s own';
		return page;
	}

	/** Put the collecting script in place and listen for what says that the page is busy. */
	async #prepare(session: CDPSession, page: Page): Promise<string> {
		const { frameTree } = await session.send('Page.getFrameTree');
		const mainFrameId = frameTree.frame.id;
		session.on('Runtime.executionContextCreated', ({ context }) => {
			const data = context.auxData as { frameId?: string } | undefined;
			if (context.name === WORLD && data?.frameId === mainFrameId) this.#worldId = context.id;
		});
		session.on('Runtime.bindingCalled', ({ name }) => {
			if (name === 'zafraBusy') this.#state.busyAt = performance.now();
		});
		session.on('Page.loadEventFired', () => {
			this.#state.loaded = true;
			this.#state.busyAt = performance.now();
		});
		page.on('framenavigated', (frame) => {
			if (frame !== page.mainFrame()) return;
			this.#documents++;
		});
		await session.send('Page.enable');
		await session.send('Runtime.enable');
		await session.send('Runtime.addBinding', { name: 'zafraBusy', executionContextName: WORLD });
		await session.send('Page.addScriptToEvaluateOnNewDocument', { source: IN_PAGE, worldName: WORLD });
		return mainFrameId;
	}

	async #navigate(session: CDPSession, network: NetworkCollector, deadline: number): Promise<void> {
		this.#state.loaded = false;
		this.#documents = 0;
		const navigation = session.send('Page.navigate', { url: this.address.href });
		const late = wait(deadline - performance.now()).then(() => 'late' as const);
		const answer = await Promise.race([navigation, late, this.#state.ended]);
		if (answer === 'late') {
			navigation.catch(() => undefined);
			throw failure('no-answer', String(Math.round(this.conditions.capMs / 1000)));
		}
		const { errorText, isDownload } = answer as { errorText?: string; isDownload?: boolean };
		if (!errorText) return;
		const response = network.documentResponse;
		if (isDownload || this.#download) throw failure('download', response?.mimeType || this.#download || 'a file');
		if (response && response.status >= 400) throw failure('http-status', String(response.status));
		const seen = await this.network.close();
		throw failureOfNavigation(errorText, this.address.hostname, seen);
	}

	#whatIsMissing(network: NetworkCollector): string {
		return network.waiting > 0
			? `${network.waiting} ${network.waiting === 1 ? 'request was' : 'requests were'} still under way`
			: 'its load event never came';
	}

	async #collect(session: CDPSession): Promise<PageFacts> {
		if (this.#worldId === null) throw failure('internal', 'the page has no world to collect in');
		const evaluation = session.send('Runtime.evaluate', {
			expression: 'zafraCollect()',
			contextId: this.#worldId,
			returnByValue: true
		});
		const late = wait(COLLECT_WITHIN_MS).then(() => {
			throw failure('time-out', 'a script kept its main thread busy');
		});
		const { result, exceptionDetails } = await Promise.race([evaluation, late, this.#state.ended]);
		if (exceptionDetails) throw failure('internal', exceptionDetails.exception?.description ?? exceptionDetails.text);
		return parsePageFacts(result.value);
	}

	/** Without an answer the figures stay missing: they never hold a load up. */
	#unused(coverage: CoverageCollector): Promise<UnusedBytes | null> {
		return Promise.race([coverage.take().catch(() => null), wait(COLLECT_WITHIN_MS).then(() => null), this.#state.ended]);
	}

	async #takePicture(session: CDPSession): Promise<Buffer | null> {
		const { width, height } = this.conditions.device;
		// One pixel of the picture per CSS pixel, whatever the device's own ratio.
		const clip = { x: 0, y: 0, width, height, scale: 1 };
		const shot = session
			.send('Page.captureScreenshot', { format: 'webp', quality: PICTURE_QUALITY, clip })
			.then(({ data }) => Buffer.from(data, 'base64'))
			.catch(() => null);
		return Promise.race([shot, wait(COLLECT_WITHIN_MS).then(() => null), this.#state.ended]);
	}

	async #speedAfter(session: CDPSession, slowdown: number): Promise<number | null> {
		if (slowdown > 1) await setSlowdown(session, 1);
		return Promise.race([timeLoop(session).catch(() => null), wait(2000).then(() => null)]);
	}

	async #finish(
		record: LoadRecord,
		network: NetworkCollector,
		screencast: Screencast,
		facts: PageFacts,
		picture: Buffer | null,
		finalUrl: string
	): Promise<MeasuredLoad> {
		const zero = this.#zeroOf(network, facts);
		fillWeights(record, network.records(zero));
		const frames = await developFrames(screencast.frames, zero);
		fillFromPage(record, facts, frames, facts.timeOrigin - zero, this.conditions.capMs);
		record.page = { ...facts.page, consoleErrors: this.#consoleErrors };
		record.finalUrl = finalUrl;
		record.redirects = network.redirects;
		record.status = 'ok';
		record.failure = null;
		const log = await this.network.close();
		if (log.mostOpen >= MOST_SOCKETS)
			record.environment.notes.push(
				`The page wanted ${MOST_SOCKETS} or more connections at once; through the lab’s network the browser opens no more.`
			);
		return { record, frames: frames.images, picture };
	}

	/** Time zero is the page's own, unless the page moved on to another document: then it is the first request. */
	#zeroOf(network: NetworkCollector, facts: PageFacts): number {
		const first = network.firstRequestEpochMs;
		return this.#documents > 1 && first !== null ? Math.min(first, facts.timeOrigin) : facts.timeOrigin;
	}

	#finishFailed(record: LoadRecord, network: NetworkCollector, reason: FailureReason): MeasuredLoad {
		fillWeights(record, network.records(network.firstRequestEpochMs ?? 0));
		record.failure = reason;
		record.page = { title: '', language: null, elements: null, depth: null, consoleErrors: this.#consoleErrors };
		return { record, frames: [], picture: null };
	}
}

function wait(ms: number): Promise<void> {
	return new Promise((resolve) => setTimeout(resolve, Math.max(0, ms)).unref());
}
