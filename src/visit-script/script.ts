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

function start(endpoint: string, page: Page, settings: ScriptSettings): void {
	const [entry] = performance.getEntriesByType('navigation') as NavigationEntry[];
	const reporter = new Reporter(endpoint, settings, { id: entry?.navigationId ?? 0, navigation: navigationOf(entry) });
	const send = () => reporter.send();
	// Before the metrics' own listener: what they report of a page that came back is of another page view.
	addEventListener('pageshow', (event) => event.persisted && reporter.restored++, true);
	const options = { reportAllChanges: true, reportSoftNavs: true };
	const take = reporter.take.bind(reporter) as never;
	for (const observe of [onTTFB, onFCP, onLCP, onCLS, onINP]) observe(take, options);
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
if (script && page.zafraVisits && Math.random() < page.zafraVisits.sampling)
	start(new URL('../visit', script.src).href, page, page.zafraVisits);
