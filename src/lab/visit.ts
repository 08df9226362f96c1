/** One tab of a load: from its opening to a settled page, and the ways to look into it. */
import { setTimeout as pause } from 'node:timers/promises';
import type { BrowserContext, CDPSession, Page } from 'playwright-core';
import type { UnusedBytes } from '$core/load/record/assemble';
import type { Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';
import { within, withDeadlines } from './browser/deadlines';
import type { CoverageCollector } from './collect/coverage';
import { NetworkCollector } from './collect/network';
import { parsePageFacts, type PageFacts } from '$core/load/record/pageFacts';
import { waitUntilSettled, type SettleResult } from './collect/settle';
import { sendOwnOnly } from './ownOnly';
import { pictureOf } from './picture';
import { pageProgram } from './page/bundle';
import { PageWorld } from './pageWorld';
import { BUSY, WORLD, type InPage } from './page/inPage';
import { guard, type Guard, type HeldBack } from './guard';
import { failure, failureOfNavigation, type LoadFailure } from './failure';
import type { ShapedNetwork } from './shaper/shaper';

const MOST_ERRORS = 50;
const WAIT_ON_LOOK_MS = 100;
const CRASH_KNOWN_AFTER_MS = 150;
/** What the browser may keep of bodies, for reading them at the end. */
const KEPT_BODIES = { maxTotalBufferSize: 40_000_000, maxResourceBufferSize: 4_000_000 };

export class Visit {
	readonly consoleErrors: string[] = [];
	readonly state: { loaded: boolean; busyAt: number; ended: Promise<never> };
	/** The lab's own. */
	readonly world: PageWorld;
	/** Documents that the main frame has shown since the navigation began. */
	documents = 0;
	#download: string | null = null;
	/** The navigation has led to a page: what is shown from now on is that page's doing. */
	#arrived = false;
	#counts = false;
	#openSockets = 0;
	#guard: Guard | null = null;

	private constructor(
		readonly page: Page,
		readonly session: CDPSession,
		readonly network: NetworkCollector,
		readonly mainFrameId: string,
		private readonly line: ShapedNetwork,
		private readonly conditions: Conditions,
		readonly address: URL,
		ended: Promise<never>,
		private readonly answerWithinMs: number
	) {
		this.state = { loaded: false, busyAt: performance.now(), ended };
		this.world = new PageWorld(session, mainFrameId, ended);
	}

	/** Open a tab and put everything in place that listens. @param endWith ends the load with a failure from outside */
	static async open(
		context: BrowserContext,
		line: ShapedNetwork,
		conditions: Conditions,
		address: URL,
		{ ended, endWith }: { ended: Promise<never>; endWith: (error: LoadFailure) => void },
		answerWithinMs: number
	): Promise<Visit> {
		const page = await within(context.newPage(), answerWithinMs);
		const session = withDeadlines(await context.newCDPSession(page), answerWithinMs);
		const { frameTree } = await session.send('Page.getFrameTree');
		const mainFrameId = frameTree.frame.id;
		const secret = conditions.headers.map((header) => header.name.toLowerCase());
		const network = new NetworkCollector(session, () => mainFrameId, secret);
		const visit = new Visit(page, session, network, mainFrameId, line, conditions, address, ended, answerWithinMs);
		// The browser says a moment later whether the tab's process was killed: that is then the reason.
		page.on('crash', () => setTimeout(() => endWith(failure('crash')), CRASH_KNOWN_AFTER_MS));
		session.on('Page.frameNavigated', ({ frame }) => {
			if (frame.id !== mainFrameId) return;
			if (!isShowable(frame.url)) endWith(failure('bad-url', frame.url.slice(0, 200)));
			if (visit.#arrived && isErrorPage(frame.url)) void visit.#leftFor(frame.unreachableUrl ?? '').then(endWith);
		});
		await visit.#listen();
		await visit.#applyConditions();
		return visit;
	}

	/** Of scripts and style; style is asked of in a session that meets no handlers of the load's own. */
	async unused(coverage: CoverageCollector): Promise<UnusedBytes> {
		const { page, answerWithinMs, network } = this;
		const session = await within(page.context().newCDPSession(page), answerWithinMs);
		return coverage.take(withDeadlines(session, answerWithinMs), network);
	}

	async #listen(): Promise<void> {
		const { page, session, state } = this;
		page.on('websocket', (socket) => {
			this.#openSockets++;
			socket.on('close', () => this.#openSockets--);
		});
		page.on('download', (download) => (this.#download = download.suggestedFilename()));
		const note = (words: string) =>
			this.consoleErrors.length < MOST_ERRORS && this.consoleErrors.push(words.slice(0, 500));
		page.on('console', (message) => message.type() === 'error' && note(message.text()));
		page.on('pageerror', (error) => note(String(error.message)));
		session.on('Runtime.bindingCalled', ({ name }) => {
			if (name === BUSY) state.busyAt = performance.now();
		});
		session.on('Page.frameNavigated', ({ frame }) => {
			if (frame.id !== this.mainFrameId) return;
			this.documents++;
			state.loaded = false;
		});
		session.on('Page.loadEventFired', () => {
			state.loaded = true;
			state.busyAt = performance.now();
		});
		await session.send('Page.enable');
		await session.send('Runtime.enable');
		await session.send('Runtime.addBinding', { name: BUSY, executionContextName: WORLD });
		await session.send('Page.addScriptToEvaluateOnNewDocument', { source: pageProgram('program'), worldName: WORLD });
		await session.send('Network.enable', KEPT_BODIES);
	}

	async #applyConditions(): Promise<void> {
		const { session, conditions, address } = this;
		if (conditions.block.length) await session.send('Network.setBlockedURLs', { urls: conditions.block });
		for (const { name, value } of conditions.cookies)
			await session.send('Network.setCookie', { name, value, url: address.href });
		await sendOwnOnly(session, conditions, address);
	}

	/** When the first contentful paint came (the lab's performance.now()); null when none came within the time. */
	async firstPaint(withinMs: number): Promise<number | null> {
		const { session, mainFrameId } = this;
		await session.send('Page.setLifecycleEventsEnabled', { enabled: true });
		const painted = new Promise<number>((resolve) => {
			session.on('Page.lifecycleEvent', ({ name, frameId }) => {
				if (name === 'firstContentfulPaint' && frameId === mainFrameId) resolve(performance.now());
			});
		});
		return Promise.race([painted, wait(withinMs).then(() => null), this.state.ended]);
	}

	/** @throws LoadFailure when no page comes of it */
	async navigate(deadline: number): Promise<void> {
		const { session, network } = this;
		this.state.loaded = false;
		this.documents = 0;
		this.#arrived = false;
		const navigation = session.send('Page.navigate', { url: this.address.href });
		const late = wait(deadline - performance.now()).then(() => 'late' as const);
		const answer = await Promise.race([navigation, late, this.state.ended]);
		if (answer === 'late') {
			navigation.catch(() => undefined);
			throw failure('no-answer', String(Math.round(this.conditions.capMs / 1000)));
		}
		const { errorText, isDownload } = answer as { errorText?: string; isDownload?: boolean };
		if (!errorText) {
			this.#arrived = true;
			return;
		}
		const response = network.documentResponse;
		if (isDownload || this.#download) throw failure('download', response?.mimeType || this.#download || 'a file');
		if (response && response.status >= 400) throw failure('http-status', String(response.status));
		const seen = await this.line.close();
		const { hostname } = new URL(network.newestDocument?.url ?? this.address.href);
		throw failureOfNavigation(errorText, hostname, seen);
	}

	/** Its measuring is over: an address that it still wants fails for want of the lab's line, not of the page. */
	letGo(): void {
		this.#arrived = false;
	}

	/** The page went where nothing answers: what is shown now is the browser's own page of an error. */
	async #leftFor(url: string): Promise<LoadFailure> {
		const host = URL.canParse(url) ? new URL(url).hostname : url;
		const error = this.network.newestDocument?.error ?? 'nothing answers there';
		const { reason } = failureOfNavigation(error, host, await this.line.close());
		return failure('error-page', `${url.slice(0, 200)}. ${reason.message}`);
	}

	/** @throws LoadFailure when the page is an error page, or never comes to rest enough to be measured */
	async settle(deadline: number): Promise<SettleResult> {
		const settled = await this.quiet(deadline);
		const document = this.network.documentResponse;
		if (document && document.status >= 400) throw failure('http-status', String(document.status));
		if (settled.stuck) throw failure('time-out', 'a script kept its main thread busy');
		if (!settled.loaded) throw failure('time-out', this.#whatIsMissing());
		return settled;
	}

	/** Nobody moves: wait until nothing new has come for a while, at least so long, and no longer than that. */
	async waitOn({ leastMs, mostMs, quietMs }: { leastMs: number; mostMs: number; quietMs: number }): Promise<void> {
		const begun = performance.now();
		for (;;) {
			await Promise.race([wait(WAIT_ON_LOOK_MS), this.state.ended]);
			const now = performance.now();
			const quietSince = Math.max(this.network.lastActivityAt, this.state.busyAt);
			const isQuiet = this.network.waiting === 0 && now - quietSince >= quietMs;
			if (now - begun >= mostMs || (isQuiet && now - begun >= leastMs)) return;
		}
	}

	/** Wait until the page is quiet. @throws LoadFailure when its main thread no longer answers at the deadline */
	async answering(deadline: number): Promise<SettleResult> {
		const settled = await this.quiet(deadline);
		if (settled.stuck) throw failure('time-out', 'a script kept its main thread busy');
		return settled;
	}

	quiet(deadline: number): Promise<SettleResult> {
		return waitUntilSettled(this.session, {
			network: this.network,
			state: this.state,
			quietMs: this.conditions.quietMs,
			deadline
		});
	}

	#whatIsMissing(): string {
		const { waiting } = this.network;
		return waiting > 0
			? `${waiting} ${waiting === 1 ? 'request was' : 'requests were'} still under way`
			: 'its load event never came';
	}

	/** @see PageWorld.call */
	call<Name extends keyof InPage>(name: Name, ...args: Parameters<InPage[Name]>): Promise<ReturnType<InPage[Name]>> {
		return this.world.call(name, ...args);
	}

	/**
	 * From now on nothing leaves that would send something; `all` holds everything.
	 * @throws Error where the page could send past that
	 */
	async hold(what: HeldBack): Promise<Guard> {
		if (this.#openSockets > 0)
			throw new Error('The page holds a connection open (a WebSocket) by which something could be sent');
		this.#guard ??= await guard(this.page);
		this.#guard.hold(what);
		return this.#guard;
	}

	async collect(): Promise<PageFacts> {
		return parsePageFacts(await this.call('collect'));
	}

	/** From the next document on: notes when each element is first seen. */
	async watchShown(selectors: readonly string[]): Promise<void> {
		if (selectors.length)
			await this.session.send('Page.addScriptToEvaluateOnNewDocument', {
				source: `globalThis.zafra?.watchShown(${JSON.stringify(selectors)})`,
				worldName: WORLD
			});
	}

	async count(selectors: readonly string[]): Promise<LoadRecord['selectors']> {
		const counts = selectors.length ? await this.call('count', selectors) : [];
		return selectors.map((selector, i) => ({ selector, count: counts[i] ?? null }));
	}

	/** Time that scripts have taken in this page since it was first asked for, by the browser's own count, ms. */
	async scriptMs(): Promise<number> {
		// Counting begins here, so that it costs the load itself nothing.
		if (!this.#counts) await this.session.send('Performance.enable');
		this.#counts = true;
		const { metrics } = await this.session.send('Performance.getMetrics');
		return (metrics.find((metric) => metric.name === 'ScriptDuration')?.value ?? 0) * 1000;
	}

	/** @param height of another part than the viewport, from the top of the document */
	picture(height: number | null = null): Promise<Buffer | null> {
		return Promise.race([pictureOf(this.session, this.conditions.device, height), this.state.ended]);
	}

	/** Time zero is the page's own, unless the page moved on to another document: then it is the first request. */
	zeroOf(facts: PageFacts, documents: number): number {
		const first = this.network.firstRequestEpochMs;
		return documents > 1 && first !== null ? Math.min(first, facts.timeOrigin) : facts.timeOrigin;
	}
}

/** What a tab may show: pages of the web, the browser's blank page, and its own page of an error. */
function isShowable(url: string): boolean {
	return /^(https?:|about:|chrome-error:)/.test(url) || url === '';
}

const isErrorPage = (url: string) => url.startsWith('chrome-error:');

export function wait(ms: number): Promise<void> {
	return pause(Math.max(0, ms), undefined, { ref: false });
}

/** Epoch ms, on the clock that the browser uses for its own times. */
export function epochNow(): number {
	return performance.timeOrigin + performance.now();
}
