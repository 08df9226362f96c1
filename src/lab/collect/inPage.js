/*
 * Runs in a world of its own in the page, before the page's scripts: it sees the page's performance entries and
 * elements, and the page can neither see nor change it. Collects only in the top frame.
 * `zafraBusy` is the lab's binding: called at each long task, so that the lab knows when the page is quiet.
 */
(() => {
	if (window !== window.top) return;
	const found = { lcp: [], shifts: [], longTasks: [], longFrames: [], interactions: [] };
	/** The last candidate's element: where it lies is asked for at the end, when it has stopped moving. */
	let lcpElement = null;

	/** A short, readable path to an element: its id, or up to four steps with their classes. */
	function selectorOf(element, most = 4) {
		const steps = [];
		for (let at = element; at && at.nodeType === 1 && steps.length < most; at = at.parentElement) {
			if (at.id) {
				steps.unshift(`#${CSS.escape(at.id)}`);
				break;
			}
			const name = at.localName;
			const classes = [...at.classList]
				.slice(0, 2)
				.map((part) => `.${CSS.escape(part)}`)
				.join('');
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
				selector: source.node
					? selectorOf(source.node.nodeType === 1 ? source.node : source.node.parentElement)
					: '(removed)',
				from: boxOf(source.previousRect),
				to: boxOf(source.currentRect)
			}))
		});
	});
	observe('longtask', (entry) => {
		found.longTasks.push({ startMs: entry.startTime, durationMs: entry.duration });
		globalThis.zafraBusy?.('task');
	});
	observe('long-animation-frame', (entry) => {
		if (found.longFrames.length >= 400) return;
		found.longFrames.push({
			startMs: entry.startTime,
			durationMs: entry.duration,
			blockingMs: entry.blockingDuration,
			scripts: entry.scripts.slice(0, 20).map((script) => ({
				url: script.sourceURL,
				invoker: `${script.invokerType}: ${script.invoker}`.slice(0, 120),
				functionName: script.sourceFunctionName.slice(0, 80),
				startMs: script.startTime,
				durationMs: script.duration,
				layoutMs: script.forcedStyleAndLayoutDuration
			}))
		});
	});
	const interaction = (entry) => {
		if (entry.interactionId)
			found.interactions.push({ id: entry.interactionId, atMs: entry.startTime, durationMs: entry.duration });
	};
	observe('event', interaction, { durationThreshold: 16 });
	// The first one is reported however short it was.
	observe('first-input', interaction);

	/** One per interaction: its longest event. */
	function interactionsSince(fromMs) {
		const longest = new Map();
		for (const { id, atMs, durationMs } of found.interactions)
			if (atMs >= fromMs) longest.set(id, Math.max(durationMs, longest.get(id) ?? 0));
		return [...longest.values()];
	}

	/** Elements of the document, not of shadow trees, as a parser of the page would count them. */
	function measureTree() {
		let elements = 0;
		let depth = 0;
		let deepest = null;
		let widest = { element: null, children: 0 };
		// Without recursion: a page may nest deeper than the stack.
		const open = document.documentElement ? [[document.documentElement, 1]] : [];
		while (open.length) {
			const [element, level] = open.pop();
			elements++;
			if (level > depth) {
				depth = level;
				deepest = element;
			}
			const { children } = element;
			if (children.length > widest.children) widest = { element, children: children.length };
			for (let i = 0; i < children.length; i++) open.push([children[i], level + 1]);
		}
		const path = [];
		for (let at = deepest; at; at = at.parentElement) path.unshift(at.id ? `${at.localName}#${at.id}` : at.localName);
		return {
			elements,
			depth,
			deepestPath: path.length ? path.join(' > ').slice(0, 1500) : null,
			widestParent: widest.element && { selector: selectorOf(widest.element), children: widest.children }
		};
	}

	const inView = (rect) =>
		rect.width > 0 &&
		rect.height > 0 &&
		rect.top < innerHeight &&
		rect.bottom > 0 &&
		rect.left < innerWidth &&
		rect.right > 0;
	const isShown = (element) => element.checkVisibility?.({ opacityProperty: true, visibilityProperty: true }) ?? true;

	function imageFacts() {
		return [...document.images].slice(0, 300).map((image) => {
			const rect = image.getBoundingClientRect();
			const style = getComputedStyle(image);
			const attributes = image.hasAttribute('width') && image.hasAttribute('height');
			return {
				url: (image.currentSrc || image.src).slice(0, 2000),
				selector: selectorOf(image),
				naturalWidth: image.naturalWidth,
				naturalHeight: image.naturalHeight,
				shownWidth: Math.round(rect.width),
				shownHeight: Math.round(rect.height),
				lazy: image.loading === 'lazy',
				roomReserved: attributes || /\d/.test(style.aspectRatio),
				inView: inView(rect)
			};
		});
	}

	function fontFacts() {
		return [...document.fonts].slice(0, 60).map(({ family, weight, status, display }) => ({
			family: family.replace(/^["']|["']$/g, ''),
			weight,
			status,
			display
		}));
	}

	/** The outermost boxes that take up room and hold neither text nor anything that paints. */
	function inlineCode() {
		return [...document.querySelectorAll('script:not([src]), style')].slice(0, 100).map((element) => {
			const text = element.textContent;
			const kind = element.tagName === 'STYLE' ? 'style' : 'script';
			return { kind, start: text.trim().slice(0, 200), bytes: new Blob([text]).size };
		});
	}

	function emptySlots() {
		const slots = [];
		const MEDIA = 'img,svg,video,canvas,iframe,object,embed,input,button,select,textarea,audio,picture,hr';
		const walk = (element) => {
			if (slots.length >= 20) return;
			for (const child of element.children) {
				const rect = child.getBoundingClientRect();
				if (rect.width < 100 || rect.height < 50 || !isShown(child)) {
					if (child.children.length && rect.height > 0) walk(child);
					continue;
				}
				const style = getComputedStyle(child);
				const paints =
					child.matches(MEDIA) ||
					child.querySelector(MEDIA) ||
					child.shadowRoot ||
					style.backgroundImage !== 'none' ||
					(child.textContent || '').trim() !== '' ||
					getComputedStyle(child, '::before').content !== 'none' ||
					getComputedStyle(child, '::after').content !== 'none';
				if (paints) walk(child);
				else if (!/^(fixed)$/.test(style.position)) slots.push({ selector: selectorOf(child), box: boxOf(rect) });
			}
		};
		if (document.body) walk(document.body);
		return slots;
	}

	/** A layer that lies over the page: fixed or a dialog, with words, and large or in front of the middle. */
	function overlay() {
		const candidates = new Set();
		for (const [x, y] of [
			[0.5, 0.5],
			[0.5, 0.9],
			[0.5, 0.1]
		]) {
			for (
				let at = document.elementFromPoint(innerWidth * x, innerHeight * y);
				at && at !== document.body;
				at = at.parentElement
			) {
				const { position } = getComputedStyle(at);
				if (position === 'fixed' || at.localName === 'dialog') candidates.add(at);
			}
		}
		for (const element of candidates) {
			const rect = element.getBoundingClientRect();
			const text = (element.innerText || '').trim();
			const share = (rect.width * rect.height) / (innerWidth * innerHeight);
			const consent = /cookie|consent|privacy/i.test(text);
			if ((share > 0.4 && text) || (consent && share > 0.03))
				return { selector: selectorOf(element), box: boxOf(rect), text: text.slice(0, 160) };
		}
		return null;
	}

	globalThis.zafraCollect = () => {
		const navigation = performance.getEntriesByType('navigation')[0];
		const paints = performance.getEntriesByType('paint');
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
			longFrames: found.longFrames,
			interactions: interactionsSince(0),
			marks: [...performance.getEntriesByType('mark'), ...performance.getEntriesByType('measure')]
				.slice(0, 200)
				.map(({ name, entryType, startTime, duration }) => ({
					name: name.slice(0, 120),
					atMs: startTime,
					durationMs: entryType === 'measure' ? duration : null
				})),
			shown: globalThis.zafraShown(),
			renderBlocking: performance
				.getEntriesByType('resource')
				.filter((entry) => entry.renderBlockingStatus === 'blocking')
				.map((entry) => entry.name),
			page: {
				title: document.title.slice(0, 300),
				language: document.documentElement?.lang || null,
				viewport: document.querySelector('meta[name=viewport i]')?.content ?? null,
				...measureTree(),
				images: imageFacts(),
				fonts: fontFacts(),
				emptySlots: emptySlots(),
				inline: inlineCode(),
				text: (document.body?.innerText ?? '').replace(/\s+/g, ' ').trim().slice(0, 6000),
				overlay: overlay(),
				signature: globalThis.zafraSignature()
			}
		};
	};

	/** What happened since a moment (epoch ms): of this document alone. Times as epoch ms. */
	globalThis.zafraSince = (epochMs) => {
		const from = epochMs - performance.timeOrigin;
		return {
			timeOrigin: performance.timeOrigin,
			interactions: interactionsSince(from - 1),
			shifts: found.shifts
				.filter((shift) => shift.atMs >= from)
				.map(({ atMs, value, recentInput }) => ({ atMs: atMs + performance.timeOrigin, value, recentInput })),
			tasks: found.longTasks
				.filter((task) => task.startMs + task.durationMs >= from)
				.map(({ startMs, durationMs }) => ({ startMs: startMs + performance.timeOrigin, durationMs }))
		};
	};

	/** For what the lab does to the page. */
	globalThis.zafraSight = { isShown, isInView: inView, selectorOf };
})();
