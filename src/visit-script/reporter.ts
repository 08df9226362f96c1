import type { MetricWithAttribution } from 'web-vitals/attribution';
import { handOver } from './handOver';
import { originOf } from './origins';
import type { ScriptSettings } from './settings';
import { newId, newView, round, type OpenView } from './view';

/** Gathers what page views have, and sends it. */
export class Reporter {
	#views = new Map<string, OpenView>();
	#current: OpenView;
	/** Restorings from the back/forward cache: each is a page view of its own. */
	restored = 0;

	constructor(
		private readonly endpoint: string,
		private readonly settings: ScriptSettings,
		first: { id: number; navigation: string }
	) {
		this.#current = newView(first.navigation, location.href, 0);
		this.#views.set(`0/${first.id}`, this.#current);
	}

	take(metric: MetricWithAttribution): void {
		const view = this.#viewOf(metric);
		const name = metric.name.toLowerCase();
		view.sent.metrics[name] = name === 'cls' ? Math.round(metric.value * 1e5) / 1e5 : round(metric.value);
		const origin = originOf(metric);
		if (origin) view.sent.origins[name] = origin;
		view.isChanged = true;
	}

	#viewOf({ navigationId, navigationType, navigationURL, navigationStartTime = 0 }: MetricWithAttribution): OpenView {
		const key = `${this.restored}/${navigationId}`;
		const existing = this.#views.get(key);
		if (existing) return existing;
		const last = this.#current;
		this.#current = newView(navigationType, navigationURL ?? location.href, navigationStartTime);
		this.#views.set(key, this.#current);
		moveLater(last, this.#current);
		// What the last one had is complete.
		this.send();
		return this.#current;
	}

	/** The first of a name counts. */
	note({ entryType, name, startTime, duration }: PerformanceEntry): void {
		const { sent, began } = this.#current;
		if (!this.settings.timings.includes(name) || name in sent.timings) return;
		sent.timings[name] = round(entryType === 'mark' ? startTime - began : duration);
		this.#current.isChanged = true;
	}

	reach(goal: string): void {
		const { sent, times } = this.#current;
		if (!this.settings.goals.includes(goal) || sent.goals.includes(goal)) return;
		sent.goals.push(goal);
		times[goal] = performance.now();
		this.#current.isChanged = true;
	}

	/** Everything that has changed since it was last sent, in one beacon. */
	send(): void {
		const changed = [...this.#views.values()].filter((view) => view.isChanged);
		if (!changed.length) return;
		const visits = changed.map((view) => {
			view.sent.id ||= newId();
			view.sent.sending++;
			view.isChanged = false;
			const to = this.settings.handOver;
			view.isHandedOver ||= to !== null && handOver(view.sent.metrics, to);
			return { ...view.sent, ageMs: Math.max(0, Math.round(performance.now() - view.began)) };
		});
		const { connection } = navigator as unknown as { connection?: { effectiveType?: string } };
		const body = JSON.stringify({
			key: this.settings.key,
			token: this.settings.token,
			device: /Mobi/.test(navigator.userAgent) ? 'phone' : 'desktop',
			network: connection?.effectiveType ?? '',
			automated: navigator.webdriver === true,
			visits
		});
		if (!navigator.sendBeacon?.(this.endpoint, body))
			void fetch(this.endpoint, { method: 'POST', body, keepalive: true, mode: 'no-cors' }).catch(() => undefined);
	}
}

/** A route change is known some frames after it began: goals that were reached since are its own. */
function moveLater({ sent, times }: OpenView, next: OpenView): void {
	const isLater = (name: string) => next.began > 0 && times[name]! >= next.began;
	next.sent.goals = sent.goals.filter(isLater);
	sent.goals = sent.goals.filter((goal) => !isLater(goal));
}
