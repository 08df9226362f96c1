/**
 * The script that a site puts on its pages: what a page view had, sent once it is over. No cookie, nothing stored, no
 * identity; the path without its query. docs/privacy.md says what is sent.
 */
import { onCLS, onFCP, onINP, onLCP, onTTFB } from 'web-vitals/attribution';
import { Reporter } from './reporter';
import type { ScriptSettings } from './settings';

/** A page view that lasts reports what it has by then: some tabs are never closed in a way that can be heard. */
const LONG_MS = 60_000;

interface Page {
	zafraVisits?: ScriptSettings;
	/** `(window.zafraGoals ??= []).push('booked')`, before or after this script has come. */
	zafraGoals?: { push(goal: string): void } | string[];
}

/** What TypeScript's own types do not have yet. */
type NavigationEntry = PerformanceNavigationTiming & { navigationId?: number; activationStart?: number };

/** How the visitor came to the document, in the words that web-vitals has for it. */
function navigationOf(entry: NavigationEntry | undefined): string {
	const { prerendering, wasDiscarded } = document as unknown as { prerendering?: boolean; wasDiscarded?: boolean };
	if (prerendering || (entry?.activationStart ?? 0) > 0) return 'prerender';
	if (wasDiscarded) return 'restore';
	return (entry?.type ?? 'navigate').replace('_', '-');
}

/** `../visit`, seen from the script; without `URL`, whose first use is a few milliseconds of a slow phone. */
function doorOf(source: string): string {
	const parts = source.split('?')[0]!.split('/');
	const host = 3;
	return [...parts.slice(0, Math.max(host, parts.length - 2)), 'visit'].join('/');
}

/**
 * The browser keeps what it noticed for those who ask late, so nothing is missed; what is measured must not wait for
 * those who measure.
 */
function afterFirstPaint(begin: () => void): void {
	new PerformanceObserver((_, observer) => {
		observer.disconnect();
		setTimeout(begin);
	}).observe({ type: 'paint', buffered: true });
}

/** Each in a task of its own: a visitor's tap comes between. */
function inTasks([first, ...rest]: (() => void)[]): void {
	first?.();
	if (rest.length) setTimeout(() => inTasks(rest));
}

function start(endpoint: string, page: Page, settings: ScriptSettings): void {
	const [entry] = performance.getEntriesByType('navigation') as NavigationEntry[];
	const reporter = new Reporter(endpoint, settings, { id: entry?.navigationId ?? 0, navigation: navigationOf(entry) });
	const send = () => reporter.send();
	// Before the metrics' own listener: what they report of a page that came back is of another page view.
	addEventListener('pageshow', (event) => event.persisted && reporter.restored++, true);
	const options = { reportAllChanges: true, reportSoftNavs: true };
	const take = reporter.take.bind(reporter) as never;
	const observers = [onTTFB, onFCP, onLCP, onCLS, onINP].map((observe) => () => observe(take, options));
	afterFirstPaint(() => inTasks(observers));
	for (const type of settings.timings.length ? ['mark', 'measure'] : [])
		new PerformanceObserver((list) => list.getEntries().forEach((timing) => reporter.note(timing))).observe({
			type,
			buffered: true
		});
	const waiting = Array.isArray(page.zafraGoals) ? page.zafraGoals : [];
	page.zafraGoals = { push: (goal: string) => reporter.reach(goal) };
	waiting.forEach(page.zafraGoals.push);
	// After the metrics' own listeners: by then they have said their last.
	document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && send());
	addEventListener('pagehide', send);
	setTimeout(send, LONG_MS);
}

const script = document.currentScript as HTMLScriptElement | null;
const page = window as unknown as Page;
const settings = page.zafraVisits;
// In a task after this one: reading the program is a stretch by itself.
if (script && settings && Math.random() < settings.sampling) setTimeout(start, 0, doorOf(script.src), page, settings);
