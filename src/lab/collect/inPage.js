/*
 * Runs in a world of its own in the page, before the page's scripts: it sees the page's performance entries and
 * elements, and the page can neither see nor change it. Collects only in the top frame.
 * `zafraBusy` is the lab's binding: called at each long task, so that the lab knows when the page is quiet.
 */
(() => {
	if (window !== window.top) return;
	const found = { lcp: [], shifts: [], longTasks: [], interactions: [] };
	/** The last candidate's element: where it lies is asked for at the end, when it has stopped moving. */
	let lcpElement = null;

	/** A short, readable path to an element: its id, or up to four steps with their classes. */
	function selectorOf(element) {
		const steps = [];
		for (let at = element; at && at.nodeType === 1 && steps.length < 4; at = at.parentElement) {
			if (at.id) {
				steps.unshift(`#${CSS.escape(at.id)}`);
				break;
			}
			const name = at.localName;
			const classes = [...at.classList].slice(0, 2).map((part) => `.${CSS.escape(part)}`).join('');
			const alike = at.parentElement ? [...at.parentElement.children].filter((other) => other.localName === name) : [];
			const place = alike.length > 1 && !classes ? `:nth-of-type(${alike.indexOf(at) + 1})` : '';
			steps.unshift(name + classes + place);
		}
		return steps.join(' > ');
	}

	const boxOf = (rect) => ({ x: rect.x, y: rect.y, width: rect.width, height: rect.height });

	function observe(type, take, options = {}) {
		try {
			new PerformanceObserver((list) => list.getEntries().forEach(take)).observe({ type, buffered: true, ...options });
		} catch {
			// A browser without this kind of entry: the lab marks the metric as not measured.
		}
	}

	observe('largest-contentful-paint', (entry) => {
		const element = entry.element;
		lcpElement = element;
		found.lcp.push({
			atMs: entry.startTime,
			size: entry.size,
			selector: element ? selectorOf(element) : null,
			tag: element ? element.localName : null,
			url: entry.url || null,
			box: null,
			text: element ? (element.innerText || element.alt || '').trim().slice(0, 80) || null : null
		});
	});
	observe('layout-shift', (entry) => {
		found.shifts.push({
			atMs: entry.startTime,
			value: entry.value,
			recentInput: entry.hadRecentInput,
			elements: (entry.sources || []).map((source) => ({
				selector: source.node ? selectorOf(source.node.nodeType === 1 ? source.node : source.node.parentElement) : '(removed)',
				from: boxOf(source.previousRect),
				to: boxOf(source.currentRect)
			}))
		});
	});
	observe('longtask', (entry) => {
		found.longTasks.push({ startMs: entry.startTime, durationMs: entry.duration });
		globalThis.zafraBusy?.('task');
	});
	observe(
		'event',
		(entry) => {
			if (entry.interactionId) found.interactions.push({ id: entry.interactionId, durationMs: entry.duration });
		},
		{ durationThreshold: 16 }
	);

	globalThis.zafraCollect = () => {
		const navigation = performance.getEntriesByType('navigation')[0];
		const paints = performance.getEntriesByType('paint');
		let elements = 0;
		let depth = 0;
		const walk = (element, level) => {
			elements++;
			if (level > depth) depth = level;
			for (const child of element.children) walk(child, level + 1);
		};
		if (document.documentElement) walk(document.documentElement, 1);
		const interactions = new Map();
		for (const { id, durationMs } of found.interactions)
			interactions.set(id, Math.max(durationMs, interactions.get(id) ?? 0));
		return {
			timeOrigin: performance.timeOrigin,
			responseStart: navigation ? navigation.responseStart : 0,
			domContentLoaded: navigation ? navigation.domContentLoadedEventStart : 0,
			onload: navigation ? navigation.loadEventStart : 0,
			fcp: paints.find((entry) => entry.name === 'first-contentful-paint')?.startTime ?? null,
			lcp: found.lcp.length
				? { ...found.lcp.at(-1), box: lcpElement?.isConnected ? boxOf(lcpElement.getBoundingClientRect()) : null }
				: null,
			shifts: found.shifts,
			longTasks: found.longTasks,
			interactions: [...interactions.values()],
			renderBlocking: performance
				.getEntriesByType('resource')
				.filter((entry) => entry.renderBlockingStatus === 'blocking')
				.map((entry) => entry.name),
			page: {
				title: document.title.slice(0, 300),
				language: document.documentElement?.lang || null,
				elements,
				depth
			}
		};
	};
})();
