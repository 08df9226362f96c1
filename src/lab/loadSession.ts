/** One load, from an empty profile to its record. */
import type { BrowserContext } from 'playwright-core';
import { longestLoadMs } from '$core/load/record/limits';
import type { FailureReason, LoadRecord, MeasuredLoad } from '$core/load/record/record';
import {
	assembleLoad,
	NO_EVIDENCE,
	type JourneyEvidence,
	type PageEvidence,
	type UnusedBytes
} from '$core/load/record/assemble';
import { emptyJourney, runSteps, type Journey } from './actions';
import { nudgeSettled, waitOn } from './late';
import { checkBeside } from './sideChecks';
import { surveyPage } from './survey';
import { tapEarly, tapRecord } from './tap';
import { failedLoad } from '$core/load/record/failedLoad';
import type { VisitorState } from '$core/load/journey/visitorState';
import { setSlowdown, timeLoop } from './browser/cpu';
import { prepare } from './prepare';
import { becomeVisitor } from './before';
import { openContext } from './browser/openContext';
import { bodiesOf, NO_BODIES } from './collect/keptBodies';
import { CoverageCollector } from './collect/coverage';
import { WorkerTraffic } from './collect/serviceWorkers';
import { failure, LoadFailure } from './failure';
import type { LoadOptions, Shared } from './loadOptions';
import { noteNetwork, noteReadiness } from './environmentNotes';
import { developFrames, type DevelopedFrames } from './frames/develop';
import type { PageFacts } from '$core/load/record/pageFacts';
import { Screencast } from './frames/screencast';
import type { ShapedNetwork } from './shaper/shaper';
import { epochNow, Visit, wait } from './visit';

const KILL_KNOWN_AFTER_MS = 200;
/** Longest time for closing a tab. */
const CLOSE_WITHIN_MS = 3000;
/** What a load has seen so far: it stays when the load is ended in the middle. */
interface SoFar {
	record: LoadRecord;
	visit: Visit | null;
	screencast: Screencast | null;
	/** Known once the page has settled. */
	settled: { facts: PageFacts; zero: number; finalUrl: string; redirects: string[] } | null;
	journey: Journey;
}

/** Only to see whether the machine was still the same: a short window does without slowdown. */
const AFTERWARDS = { windowMs: 40 };
/** Frames are kept of a load that was ended, as long as developing them takes no longer than this. */
const FRAMES_WITHIN_MS = 3000;

export class LoadSession {
	#context: BrowserContext | null = null;
	#ended: Promise<never>;
	#endWith: (error: LoadFailure) => void = () => undefined;
	/** The lab is opening a tab itself: not a popup. */
	#opening = false;
	#soFar: SoFar;

	constructor(
		private readonly shared: Shared,
		private readonly line: ShapedNetwork,
		private readonly options: LoadOptions
	) {
		this.#ended = new Promise<never>((_, reject) => (this.#endWith = reject));
		// Whoever races against `ended` sees the failure; when nobody does, it is no unhandled rejection.
		this.#ended.catch(() => undefined);
		const { address, conditions, startedAt } = options;
		const record = failedLoad({ url: address.href, conditions }, startedAt, failure('internal').reason);
		record.shown = options.shown.map((element) => ({ ...element, atMs: null }));
		this.#soFar = { record, visit: null, screencast: null, settled: null, journey: emptyJourney() };
	}

	/**
	 * Whatever the page does, this ends within `longestLoadMs`.
	 * @throws LoadFailure when nothing of the page was seen, or when the browser was ended from outside
	 */
	async run(): Promise<MeasuredLoad> {
		const lost = () => this.#endWith(failure('browser-killed'));
		this.shared.running.browser.on('disconnected', lost);
		let killed = false;
		// One load at a time: whichever tab somebody kills, it is this load's.
		const offTabs = this.shared.running.onTabGone((tab) => {
			killed ||= tab.killed;
			if (tab.killed) this.#endWith(failure('browser-killed'));
		});
		const late = () => this.#endWith(failure('time-out', 'it was ended from outside, since it did not come to rest'));
		const watchdog = setTimeout(late, longestLoadMs(this.options, this.shared.limits.waitMs));
		try {
			return await Promise.race([this.#measure(), this.#ended]);
		} catch (error) {
			// A kill is told a moment after what it causes.
			await wait(KILL_KNOWN_AFTER_MS);
			if (killed || !this.shared.running.browser.isConnected()) throw failure('browser-killed');
			if (!(error instanceof LoadFailure) || error.reason.code === 'browser-killed') throw error;
			return await this.#finishFailed(error.reason);
		} finally {
			clearTimeout(watchdog);
			offTabs();
			this.shared.running.browser.off('disconnected', lost);
		}
	}

	/** @returns false when the tab could not be closed: the browser must go */
	async end(): Promise<boolean> {
		const closing =
			this.#context?.close().then(
				() => true,
				() => this.shared.running.browser.isConnected()
			) ?? Promise.resolve(true);
		const closed = await Promise.race([closing, wait(CLOSE_WITHIN_MS).then(() => false)]);
		await this.line.close();
		return closed;
	}

	async #measure(): Promise<MeasuredLoad> {
		const { conditions } = this.options;
		const { record } = this.#soFar;
		await this.#openContext(record);
		if (this.options.before) await this.#become(this.options.before);
		if (conditions.cache === 'repeat') record.firstVisit = await this.#firstVisit(record);
		const visit = (this.#soFar.visit = await this.#openVisit());
		await visit.watchShown(this.options.shown.map(({ selector }) => selector));
		await this.#prepare(visit, record);
		const screencast = (this.#soFar.screencast = new Screencast(visit.session));
		const coverage = new CoverageCollector(visit.session);
		if (this.options.collects === 'full') {
			await screencast.start();
			await coverage.start();
		}
		const workers = new WorkerTraffic(this.#context!);
		return this.#measureVisit(record, visit, screencast, coverage, workers);
	}

	async #measureVisit(
		record: LoadRecord,
		visit: Visit,
		screencast: Screencast,
		coverage: CoverageCollector,
		workers: WorkerTraffic
	): Promise<MeasuredLoad> {
		const { conditions, steps } = this.options;
		const { journey } = this.#soFar;
		const full = this.options.collects === 'full';
		const tapping = this.options.tap && tapEarly(visit, this.options.tap, conditions).catch(() => null);
		await this.#bringToRest(record, visit);
		const tapped = await tapping;
		const facts = await visit.collect();
		record.selectors = await visit.count(this.options.selectors);
		const zero = visit.zeroOf(facts, visit.documents);
		const settled = (this.#soFar.settled = {
			facts,
			zero,
			finalUrl: visit.page.url(),
			redirects: visit.network.redirects
		});
		const unused = full ? await this.#unused(coverage, visit) : null;
		// Taking the picture repaints the page at another scale: the screencast must not see it.
		await screencast.stop();
		const picture = await visit.picture();
		const { bodies, kept } = full ? await bodiesOf(visit, this.options.bodies, unused) : NO_BODIES;

		const { patience, nudged, surveyed, beside } = await this.#doAfterwards(visit);
		record.environment.machineSpeed.after = await this.#speedAfter(visit, record.environment.slowdown);

		visit.letGo();
		const log = await this.line.close();
		noteNetwork(record, log);
		const requests = [...visit.network.records(zero, log.connections), ...(await workers.records(zero))].sort(
			(a, b) => a.startMs - b.startMs
		);
		const read = bodies
			? requests.map((request) => ({ ...request, body: bodies.facts.get(request.id) ?? null }))
			: requests;
		const frames = await developFrames(screencast.frames, zero);
		const measured = assembleLoad(
			{
				...record,
				status: 'ok',
				failure: null,
				tap: tapped && tapRecord(tapped, zero),
				survey: surveyed?.survey ?? null,
				sideChecks: beside
			},
			{
				requests: read,
				frames,
				unused,
				page: this.#pageEvidence(visit, settled),
				nudge: nudged && { ...nudged, zeroEpochMs: zero },
				patience: patience && { ...patience, zeroEpochMs: zero },
				journey: steps.length ? journeyEvidence(journey, zero) : null
			}
		);
		const pictures = { frames: frames.images, picture, stepPicture: journey.picture };
		return { record: measured, ...pictures, survey: surveyed, ...(kept ? { bodies: kept } : {}) };
	}

	/** What is asked of a page that has settled. */
	async #doAfterwards(visit: Visit) {
		const { conditions, steps, survey, sideChecks } = this.options;
		const beside = sideChecks ? await checkBeside(visit) : null;
		const patience = this.options.patience ? await waitOn(visit) : null;
		const nudged = conditions.input === 'nudge' ? await nudgeSettled(visit, conditions) : null;
		if (steps.length) await runSteps(visit, steps, conditions, this.#soFar.journey);
		const surveyed = survey ? await surveyPage(visit, conditions, () => this.#openTry()) : null;
		return { patience, nudged, surveyed, beside };
	}

	#pageEvidence(visit: Visit, { facts, zero, finalUrl, redirects }: NonNullable<SoFar['settled']>): PageEvidence {
		return { facts, offsetMs: facts.timeOrigin - zero, finalUrl, redirects, consoleErrors: visit.consoleErrors };
	}

	/** The first visit fills the profile; of it only the figures stay. */
	async #firstVisit(record: LoadRecord) {
		const { conditions, address, startedAt } = this.options;
		const visit = await this.#openVisit();
		await this.#prepare(visit, record);
		const first = failedLoad({ url: address.href, conditions }, startedAt, failure('internal').reason);
		await this.#bringToRest(first, visit);
		const facts = await visit.collect();
		const zero = visit.zeroOf(facts, visit.documents);
		const settled = { facts, zero, finalUrl: visit.page.url(), redirects: visit.network.redirects };
		const page = this.#pageEvidence(visit, settled);
		const measured = assembleLoad(first, { ...NO_EVIDENCE, requests: visit.network.records(zero), page });
		await visit.page.close();
		await this.line.renew();
		return measured.figures;
	}

	async #bringToRest(record: LoadRecord, visit: Visit): Promise<void> {
		const { capMs } = this.options.conditions;
		const deadline = performance.now() + capMs;
		this.shared.moments.navigatedAtMs = epochNow();
		await visit.navigate(deadline);
		const settled = await visit.settle(deadline);
		record.capped = settled.capped;
		if (settled.capped)
			record.environment.notes.push(`The page was still busy after ${capMs / 1000} s; the load was ended there.`);
	}

	async #openContext(record: LoadRecord): Promise<void> {
		const { conditions, asVisitor, before } = this.options;
		const { running } = this.shared;
		const { context, userAgent } = await openContext(running, this.line.port, conditions, asVisitor);
		this.#context = context;
		this.#context.on('page', (page) => {
			if (!this.#opening) void page.close().catch(() => undefined);
		});
		record.environment.browser = this.shared.running.version;
		record.environment.switches = this.shared.running.switches;
		record.environment.sandboxed = this.shared.running.sandboxed;
		record.environment.userAgent = userAgent ?? 'the browser’s own';
		record.environment.visitor = before?.name ?? null;
	}

	/** The visitor comes to the page from elsewhere, at the machine's own speed. */
	async #become(state: VisitorState): Promise<void> {
		const visit = await this.#openVisit(state.url === null ? undefined : new URL(state.url));
		await becomeVisitor(visit, state, this.options.conditions);
		await visit.page.close();
		await this.line.renew();
	}

	/** A tab whose end is not the load's. */
	#openTry(): Promise<Visit> {
		let endWith: (error: LoadFailure) => void = () => undefined;
		const own = new Promise<never>((_, reject) => (endWith = reject));
		const ended = Promise.race([own, this.#ended]);
		ended.catch(() => undefined);
		return this.#openVisit(this.options.address, { ended, endWith });
	}

	async #openVisit(
		address = this.options.address,
		ends = { ended: this.#ended, endWith: this.#endWith }
	): Promise<Visit> {
		this.#opening = true;
		try {
			const { conditions } = this.options;
			return await Visit.open(this.#context!, this.line, conditions, address, ends, this.shared.answerWithinMs);
		} finally {
			this.#opening = false;
		}
	}

	async #prepare({ session }: Visit, record: LoadRecord): Promise<void> {
		const { speeds: book, watch, limits, moments } = this.shared;
		const { targetSpeed } = this.options.conditions.device;
		const ready = await prepare({ session, targetSpeed, book, watch, limits, ended: this.#ended });
		moments.waitedMs += ready.waitedMs;
		moments.gaveUp ||= ready.gaveUp;
		noteReadiness(record, ready, targetSpeed);
	}

	/** Without an answer the figures stay missing: they never hold a load up. */
	#unused(coverage: CoverageCollector, visit: Visit): Promise<UnusedBytes | null> {
		return Promise.race([visit.unused(coverage).catch(() => null), this.#ended]);
	}

	async #speedAfter({ session }: Visit, slowdown: number): Promise<number | null> {
		if (slowdown > 1) await setSlowdown(session, 1);
		return Promise.race([timeLoop(session, AFTERWARDS).catch(() => null), wait(2000).then(() => null)]);
	}

	/** Nothing here asks the page: it may be stuck, or gone. */
	async #finishFailed(reason: FailureReason): Promise<MeasuredLoad> {
		const { record, visit, screencast, settled, journey } = this.#soFar;
		record.failure = reason;
		record.status = 'failed';
		if (!visit) return { record, frames: [], picture: null, stepPicture: null };
		const log = await this.line.close();
		noteNetwork(record, log);
		const zero = settled?.zero ?? visit.network.firstRequestEpochMs ?? 0;
		const developed = screencast && zero ? developFrames(screencast.frames, zero).catch(() => null) : null;
		const frames = (await Promise.race([developed, wait(FRAMES_WITHIN_MS).then(() => null)])) ?? NO_FRAMES;
		if (visit.consoleErrors.length)
			record.environment.notes.push(`The console said: ${visit.consoleErrors.slice(0, 3).join(' | ')}`);
		const seen = assembleLoad(record, {
			...NO_EVIDENCE,
			requests: visit.network.records(zero, log.connections),
			frames,
			page: settled && this.#pageEvidence(visit, settled),
			journey: journey.steps.length ? journeyEvidence(journey, zero) : null
		});
		return { record: seen, frames: frames.images, picture: null, stepPicture: journey.picture };
	}
}

function journeyEvidence({ steps, interactions }: Journey, zeroEpochMs: number): JourneyEvidence {
	const dated = steps.map(({ atEpochMs, ...step }) => ({ ...step, atMs: Math.round(atEpochMs - zeroEpochMs) }));
	return { steps: dated, interactions };
}

const NO_FRAMES: DevelopedFrames = { records: [], images: [], startRenderMs: null };
