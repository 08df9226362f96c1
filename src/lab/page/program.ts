/**
 * Runs in the lab’s own world of a page, before the page’s scripts: it sees the page’s performance entries and
 * elements, and the page can neither see nor change it. Of frames the top one alone is looked into.
 */
import { aimAt, pointOf, problemOf, scrollTo } from './acts';
import { Entries } from './entries';
import { pageFacts } from './facts';
import type { InPage } from './inPage';
import { shownElements, stateShown, watchShown } from './shown';

const MOST_MARKS = 200;

declare global {
	/** Without its tools until somebody needs them. */
	var zafra: ReturnType<typeof inPage> | undefined;
	var zafraBusy: ((what: string) => void) | undefined;
}

function inPage(): Omit<InPage, 'survey' | 'wordsAt' | 'tryToSend' | 'headFacts' | 'drawn'> {
	const entries = new Entries(() => globalThis.zafraBusy?.('task'));
	return {
		collect: () => ({
			...navigationTimes(),
			lcp: entries.lcp,
			shifts: entries.shifts,
			longTasks: entries.longTasks,
			longFrames: entries.longFrames,
			interactions: entries.interactionsSince(0),
			marks: marks(),
			shown: shownElements(),
			renderBlocking: renderBlocking(),
			page: pageFacts()
		}),
		since: (epochMs) => since(entries, epochMs),
		count: (selectors) => selectors.map(countOf),
		point: pointOf,
		aim: aimAt,
		problem: problemOf,
		stateShown,
		scroll: scrollTo,
		watchShown
	};
}

function navigationTimes() {
	const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
	const paints = performance.getEntriesByType('paint');
	return {
		timeOrigin: performance.timeOrigin,
		responseStart: navigation?.responseStart ?? 0,
		domContentLoaded: navigation?.domContentLoadedEventStart ?? 0,
		onload: navigation?.loadEventStart ?? 0,
		fcp: paints.find(({ name }) => name === 'first-contentful-paint')?.startTime ?? null
	};
}

function marks() {
	const all = [...performance.getEntriesByType('mark'), ...performance.getEntriesByType('measure')];
	return all.slice(0, MOST_MARKS).map(({ name, entryType, startTime, duration }) => ({
		name: name.slice(0, 120),
		atMs: startTime,
		durationMs: entryType === 'measure' ? duration : null
	}));
}

/** Resource Timing, `renderBlockingStatus`: not in TypeScript's own types. */
function renderBlocking(): string[] {
	const resources = performance.getEntriesByType('resource') as (PerformanceEntry & {
		renderBlockingStatus?: string;
	})[];
	return resources.filter((entry) => entry.renderBlockingStatus === 'blocking').map(({ name }) => name);
}

/** Times as epoch ms. */
function since(entries: Entries, epochMs: number) {
	const { timeOrigin } = performance;
	const from = epochMs - timeOrigin;
	return {
		timeOrigin,
		interactions: entries.interactionsSince(from - 1),
		shifts: entries.shifts
			.filter(({ atMs }) => atMs >= from)
			.map(({ atMs, value, recentInput }) => ({ atMs: atMs + timeOrigin, value, recentInput })),
		tasks: entries.longTasks
			.filter(({ startMs, durationMs }) => startMs + durationMs >= from)
			.map(({ startMs, durationMs }) => ({ startMs: startMs + timeOrigin, durationMs }))
	};
}

function countOf(selector: string): number | null {
	try {
		return document.querySelectorAll(selector).length;
	} catch {
		return null;
	}
}

if (window === window.top) globalThis.zafra = inPage();
