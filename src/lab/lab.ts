/** The lab: (LoadOrder) -> LoadRecord, in real Chromium behind a shaped network. It knows no database. */
import { busyShares, CALM_LIMITS, type CalmLimits } from '$core/load/vitals/calm';
import { roundTripOf, type Conditions } from '$core/load/conditions/conditions';
import type { FailureCode, LoadRecord, MeasuredLoad } from '$core/load/record/record';
import { longestLoadMs } from '$core/load/record/limits';
import { failedLoad } from '$core/load/record/failedLoad';
import type { LoadOrder } from '$core/load/journey/order';
import { SpeedBook } from './browser/cpu';
import { ANSWER_WITHIN_MS } from './browser/deadlines';
import { describeCalm, type LoadMoments } from './calm/describe';
import { CalmWatch } from './calm/watch';
import { noteDisturbance, noteOutage } from './environmentNotes';
import { launchBrowser, type LaunchOptions, type RunningBrowser } from './browser/launch';
import { stillPaints } from './browser/paints';
import { MOST_WARM_LOADS, warmConditions, warmUp } from './browser/warm';
import { failure, LoadFailure } from './failure';
import type { Collects } from './loadOptions';
import { LoadSession } from './loadSession';
import { conditionsOf, failBecause, isUnpainted, parseAddress, sessionOf, unmeasured } from './labOrders';
import { failedFetch, stabilityOf, type FetchSeen, type StabilityResult } from '$core/load/requests/stability';
import { fetchOnce, openAsking } from './asking';
import { printPdf, type PdfOrder } from './pdf';
import { purgeCache } from './purge';
import { noteRewriting, Rewriting, UNTOUCHED } from './rewrite/rewriting';
import type { OpenedRewriting } from './rewrite/rewriter';
import { Shaper, type ShapedNetwork } from './shaper/shaper';
import { waitUntilStable } from './stability';
import { parseHostMap, type HostRule, type HostTimes } from '$core/load/requests/hostMap';

export interface LabOptions extends LaunchOptions {
	hostMap?: HostRule[];
	/** What hosts cost beyond the line's own round trip and look-up. */
	hostTimes?: HostTimes[];
	collects?: Collects;
	/** Processes beside the lab's own that work for its loads: web, the simulated web. */
	helpers?: readonly number[];
	/** When the machine is too busy to measure on. */
	calm?: CalmLimits;
	/** Longest wait for an answer of the browser, ms. */
	answerWithinMs?: number;
	/** The control page: a fresh browser loads it before it measures. Without it the first load counts as it is. */
	warmUrl?: string | null;
	/** Loads after which a browser is renewed, between blocks. */
	loadsPerBrowser?: number;
	/** Where pages are kept as they came once, each under its twin's name. */
	twinsFolder?: string;
}

/** A fresh browser now and then keeps its memory, and so the loads, alike: between blocks, never inside one. */
const LOADS_PER_BROWSER = 40;
/** Blocks longer than this go over two browsers. */
const MOST_LOADS_PER_BROWSER = 160;
/** After these a page may have left the browser short of something: the next load gets a new one. */
const WANTS_FRESH_BROWSER = new Set<FailureCode | null>([
	'time-out',
	'crash',
	'browser-killed',
	'browser-blind',
	'internal'
]);

export class Lab {
	#shaper: Shaper | null = null;
	#rewriting: Rewriting;
	#running: RunningBrowser | null = null;
	#loads = 0;
	/** How often it was told to end what it does. */
	#ended = 0;
	/** What is measured together, of the newest load. */
	#block: string | null = null;
	#speeds = new SpeedBook();
	#calm: CalmWatch;
	#limits: CalmLimits;

	constructor(private readonly options: LabOptions = {}) {
		this.#calm = new CalmWatch(options.helpers);
		this.#limits = options.calm ?? CALM_LIMITS;
		this.#rewriting = new Rewriting(options);
	}

	/**
	 * Load a page once, and go through the steps of a journey once it has settled. Every trouble of the page, the
	 * network or the browser ends in a record with status `failed` and a reason in words; nothing is thrown. One load at
	 * a time: the caller waits for one before the next.
	 */
	async measure(order: LoadOrder): Promise<MeasuredLoad> {
		const ended = this.#ended;
		await this.#renewBetween(order.block ?? null);
		// A browser trusts the rewriting server for the loads that pass through it, and for no others.
		if (this.#running && !(await this.#rewriting.suits(this.#running, order))) await this.#dropBrowser();
		await this.#warmUp(order, () => this.#ended === ended);
		const startedAt = new Date();
		// Told to end meanwhile: no browser is started for it any more.
		if (this.#ended !== ended) return unmeasured(failedLoad(order, startedAt, failure('browser-killed').reason));
		const begun = performance.now();
		this.#calm.start();
		const moments: LoadMoments = { navigatedAtMs: null, waitedMs: 0, gaveUp: false };
		const measured = await this.#measureOrFail(order, startedAt, moments);
		const { record } = measured;
		const { environment } = record;
		const samples = await this.#calm.stop();
		environment.busy = busyShares(samples);
		environment.calm = describeCalm(samples, moments, record.settledMs, this.#limits);
		noteDisturbance(record);
		if (order.outage) noteOutage(record, order.outage);
		if (environment.busy?.stopped) failBecause(record, failure('browser-killed').reason);
		else if (isUnpainted(record)) await this.#failUnpainted(record);
		measured.record.labMs = Math.round(performance.now() - begun);
		return measured;
	}

	/** A browser has had its loads, and another block begins. */
	async #renewBetween(block: string | null): Promise<void> {
		const isOther = block === null || block !== this.#block;
		this.#block = block;
		const { loadsPerBrowser = LOADS_PER_BROWSER } = this.options;
		const isOld = this.#loads >= loadsPerBrowser && isOther;
		if (this.#running && (isOld || this.#loads >= MOST_LOADS_PER_BROWSER)) await this.#dropBrowser();
	}

	/** A browser that is not there yet, or is no more, is started and loads the control page first. */
	async #warmUp({ conditions, rewriting }: LoadOrder, goesOn: () => boolean): Promise<void> {
		const { warmUrl = null } = this.options;
		if (warmUrl === null || this.#running?.browser.isConnected()) return;
		const order: LoadOrder = {
			...{ url: warmUrl, conditions: warmConditions(conditions), steps: [] },
			...(rewriting ? { rewriting: UNTOUCHED } : {})
		};
		await warmUp(async () => {
			if (!goesOn()) return null;
			this.#calm.start();
			const moments: LoadMoments = { navigatedAtMs: null, waitedMs: 0, gaveUp: false };
			const { record } = await this.#measureOrFail(order, new Date(), moments);
			await this.#calm.stop();
			return record;
		});
	}

	/** Whether nothing was painted is the page's doing or the browser's: the lab's own page tells. */
	async #failUnpainted(record: LoadRecord): Promise<void> {
		const paints = this.#running !== null && (await stillPaints(this.#running));
		failBecause(record, failure(paints ? 'nothing-painted' : 'browser-blind').reason);
		if (!paints) await this.#dropBrowser();
	}

	/** A document as PDF. @throws LoadFailure when Chromium is not there or does not start */
	async print(order: PdfOrder): Promise<Buffer> {
		const { browser } = await this.#browser();
		try {
			return await printPdf(browser, order);
		} catch (error) {
			await this.#dropBrowser();
			throw error;
		}
	}

	/** @param moments is filled as far as the load comes */
	async #measureOrFail(order: LoadOrder, startedAt: Date, moments: LoadMoments): Promise<MeasuredLoad> {
		const conditions = conditionsOf(order);
		let session: LoadSession | null = null;
		let rewriting: OpenedRewriting | null = null;
		let fresh = false;
		try {
			const address = parseAddress(order.url);
			const running = await this.#browser(await this.#rewriting.keysFor(order));
			if (order.purge) await this.#purge(order.purge, conditions);
			rewriting = await this.#rewriting.open(order, this.#rulesFor(conditions));
			const network = await this.#line(conditions, order.outage, rewriting?.ports);
			const collects = this.options.collects ?? 'full';
			const { answerWithinMs = ANSWER_WITHIN_MS } = this.options;
			const shared = {
				running,
				speeds: this.#speeds,
				watch: this.#calm,
				limits: this.#limits,
				moments,
				answerWithinMs
			};
			session = new LoadSession(shared, network, { ...sessionOf(order), conditions, address, startedAt, collects });
			const measured = await session.run();
			if (rewriting) noteRewriting(measured.record, order, await rewriting.close());
			fresh = WANTS_FRESH_BROWSER.has(measured.record.failure?.code ?? null);
			return measured;
		} catch (error) {
			const reason = error instanceof LoadFailure ? error.reason : failure('internal', (error as Error).message).reason;
			fresh = WANTS_FRESH_BROWSER.has(reason.code);
			return unmeasured(failedLoad(order, startedAt, reason));
		} finally {
			const closed = (await session?.end()) ?? true;
			await rewriting?.close();
			if (fresh || !closed) await this.#dropBrowser();
		}
	}

	/** The time after which a load is over whatever happens, ms. */
	longestMs(order: LoadOrder): number {
		const warm = { conditions: warmConditions(order.conditions), steps: [] };
		const warmMs = this.options.warmUrl ? MOST_WARM_LOADS * longestLoadMs(warm, this.#limits.waitMs) : 0;
		return longestLoadMs(order, this.#limits.waitMs) + warmMs;
	}

	/** Over a line of its own: what it carries is none of the load's. */
	async #purge(purge: NonNullable<LoadOrder['purge']>, conditions: Conditions): Promise<void> {
		const line = await this.#line(conditions);
		try {
			await purgeCache(purge, line);
		} finally {
			await line.close();
		}
	}

	/** Fetch a page as the device would until what is served repeats, or the time is over. Nothing is thrown. */
	async waitUntilStable(url: string, conditions: Conditions, withinMs: number): Promise<StabilityResult> {
		try {
			return await this.#asDevice(conditions, (agent, line) => waitUntilStable(url, agent, line, withinMs));
		} catch (error) {
			return stabilityOf([failedFetch((error as Error).message.split('\n')[0]!)]);
		}
	}

	/**
	 * Ask for pages as the device would, one after the other, without opening them.
	 * @param goesOn asked before each @param answered told of each
	 * @throws LoadFailure when Chromium is not there or does not start
	 */
	async askPages(
		urls: readonly string[],
		conditions: Conditions,
		{ goesOn, answered }: { goesOn(): boolean; answered(url: string, answer: FetchSeen): void }
	): Promise<void> {
		await this.#asDevice(conditions, async (agent, line) => {
			const context = await openAsking(agent, line);
			try {
				for (const url of urls) if (goesOn()) answered(url, await fetchOnce(context, url, performance.now()));
			} finally {
				await context.dispose();
			}
		});
	}

	async #asDevice<Result>(
		conditions: Conditions,
		ask: (agent: string | undefined, line: ShapedNetwork) => Promise<Result>
	): Promise<Result> {
		const line = await this.#line(conditions);
		try {
			const major = (await this.#browser()).browser.version().split('.')[0]!;
			return await ask(conditions.device.userAgent?.replace('{major}', major), line);
		} finally {
			await line.close();
		}
	}

	#line(
		conditions: Conditions,
		outage: LoadOrder['outage'] = null,
		through: OpenedRewriting['ports'] | null = null
	): Promise<ShapedNetwork> {
		this.#shaper ??= new Shaper();
		return this.#shaper.open({
			...conditions.network,
			roundTripMs: roundTripOf(conditions),
			hostMap: this.#rulesFor(conditions),
			hostTimes: this.options.hostTimes ?? [],
			outage,
			through
		});
	}

	/** End the load under way at once: it comes back as failed. */
	abandon(): Promise<void> {
		this.#ended++;
		return this.#dropBrowser();
	}

	get sandboxed(): boolean | null {
		return this.#running?.sandboxed ?? null;
	}

	async close(): Promise<void> {
		this.#ended++;
		await this.#dropBrowser();
		await this.#calm.close();
		await this.#shaper?.stop();
		this.#shaper = null;
		await this.#rewriting.stop();
	}

	/** The conditions' own rules go first, but lead to no private address that the operator does not map. */
	#rulesFor({ hostMap }: Conditions): HostRule[] {
		const own = this.options.hostMap ?? [];
		const ownTargets = new Set(own.map((rule) => `${rule.address}:${rule.port}/${rule.tlsPort}`));
		const rules = parseHostMap(hostMap, 'The host map of the conditions');
		return [
			...rules.map((rule) => ({
				...rule,
				publicOnly: !ownTargets.has(`${rule.address}:${rule.port}/${rule.tlsPort}`)
			})),
			...own
		];
	}

	async #browser(trustedKeys = this.options.trustedKeys ?? []): Promise<RunningBrowser> {
		if (this.#running && !this.#running.browser.isConnected()) await this.#dropBrowser();
		this.#loads++;
		return (this.#running ??= await launchBrowser({ ...this.options, trustedKeys }));
	}

	async #dropBrowser(): Promise<void> {
		const running = this.#running;
		this.#running = null;
		this.#loads = 0;
		await running?.close();
	}
}
