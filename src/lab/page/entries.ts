/** Performance entries as they come: observed from before the page's first script. */
import { boxOf, selectorOf, wordsOf, type Box } from './sight';

/** Layout Instability (WICG), not in TypeScript's own types. */
interface LayoutShiftEntry extends PerformanceEntry {
	value: number;
	hadRecentInput: boolean;
	sources?: { node: Node | null; previousRect: DOMRectReadOnly; currentRect: DOMRectReadOnly }[];
}

/** Long Animation Frames (W3C), likewise. */
interface LongFrameEntry extends PerformanceEntry {
	blockingDuration: number;
	scripts: readonly {
		sourceURL: string;
		invokerType: string;
		invoker: string;
		sourceFunctionName: string;
		startTime: number;
		duration: number;
		forcedStyleAndLayoutDuration: number;
	}[];
}

const MOST_LONG_FRAMES = 400;
const MOST_SCRIPTS = 20;

function observe<Entry extends PerformanceEntry>(type: string, take: (entry: Entry) => void, options = {}): void {
	try {
		const observer = new PerformanceObserver((list) => (list.getEntries() as Entry[]).forEach(take));
		observer.observe({ type, buffered: true, ...options });
	} catch {
		// A browser without this kind of entry: the lab marks the metric as not measured.
	}
}

/** @param onLongTask called at each */
export class Entries {
	readonly shifts: {
		atMs: number;
		value: number;
		recentInput: boolean;
		elements: { selector: string; from: Box; to: Box }[];
	}[] = [];
	readonly longTasks: { startMs: number; durationMs: number }[] = [];
	readonly longFrames: object[] = [];
	#interactions: { id: number; atMs: number; durationMs: number }[] = [];
	#lcp: {
		atMs: number;
		size: number;
		selector: string | null;
		tag: string | null;
		url: string | null;
		text: string | null;
	} | null = null;
	/** Of the last candidate: where it lies is asked for at the end, when it has stopped moving. */
	#lcpElement: Element | null = null;

	constructor(onLongTask: () => void) {
		observe<LargestContentfulPaint>('largest-contentful-paint', (entry) => this.#takePaint(entry));
		observe<LayoutShiftEntry>('layout-shift', (entry) => this.#takeShift(entry));
		observe('longtask', ({ startTime, duration }) => {
			this.longTasks.push({ startMs: startTime, durationMs: duration });
			onLongTask();
		});
		observe<LongFrameEntry>('long-animation-frame', (entry) => this.#takeLongFrame(entry));
		const takeInteraction = ({ interactionId, startTime, duration }: PerformanceEventTiming) => {
			if (interactionId) this.#interactions.push({ id: interactionId, atMs: startTime, durationMs: duration });
		};
		observe<PerformanceEventTiming>('event', takeInteraction, { durationThreshold: 16 });
		// The first one is reported however short it was.
		observe<PerformanceEventTiming>('first-input', takeInteraction);
	}

	#takePaint({ element, startTime, size, url }: LargestContentfulPaint): void {
		this.#lcpElement = element;
		const words = element && (wordsOf(element) || (element as HTMLImageElement).alt || '').trim().slice(0, 80);
		this.#lcp = {
			atMs: startTime,
			size,
			selector: element ? selectorOf(element) : null,
			tag: element ? element.localName : null,
			url: url || null,
			text: words || null
		};
	}

	#takeShift({ startTime, value, hadRecentInput, sources }: LayoutShiftEntry): void {
		this.shifts.push({
			atMs: startTime,
			value,
			recentInput: hadRecentInput,
			elements: (sources ?? []).map(({ node, previousRect, currentRect }) => ({
				selector: node ? selectorOf(node instanceof Element ? node : node.parentElement) : '(removed)',
				from: boxOf(previousRect),
				to: boxOf(currentRect)
			}))
		});
	}

	#takeLongFrame({ startTime, duration, blockingDuration, scripts }: LongFrameEntry): void {
		if (this.longFrames.length >= MOST_LONG_FRAMES) return;
		this.longFrames.push({
			startMs: startTime,
			durationMs: duration,
			blockingMs: blockingDuration,
			scripts: scripts.slice(0, MOST_SCRIPTS).map((script) => ({
				url: script.sourceURL,
				invoker: `${script.invokerType}: ${script.invoker}`.slice(0, 120),
				functionName: script.sourceFunctionName.slice(0, 80),
				startMs: script.startTime,
				durationMs: script.duration,
				layoutMs: script.forcedStyleAndLayoutDuration
			}))
		});
	}

	get lcp() {
		const box = this.#lcpElement?.isConnected ? boxOf(this.#lcpElement.getBoundingClientRect()) : null;
		return this.#lcp && { ...this.#lcp, box };
	}

	/** Of each interaction its longest event, ms. */
	interactionsSince(fromMs: number): number[] {
		const longest = new Map<number, number>();
		for (const { id, atMs, durationMs } of this.#interactions)
			if (atMs >= fromMs) longest.set(id, Math.max(durationMs, longest.get(id) ?? 0));
		return [...longest.values()];
	}
}
