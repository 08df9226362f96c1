/*
 * Runs after inPage.js in the same world of its own: where elements are, whether they can be pressed, what holds.
 */
(() => {
	if (window !== window.top) return;
	const { isShown, selectorOf } = globalThis.zafraSight;

	/** The first element that a selector names, in shadow trees too. @throws for a selector that cannot be read */
	function deepFind(selector, root = document) {
		const direct = root.querySelector(selector);
		if (direct) return direct;
		for (const element of root.querySelectorAll('*')) {
			const inside = element.shadowRoot && deepFind(selector, element.shadowRoot);
			if (inside) return inside;
		}
		return null;
	}

	/** Bring an element into view and say where to press it. */
	globalThis.zafraPoint = (selector) => {
		const element = deepFind(selector);
		if (!element) return { problem: `nothing matches ${selector}` };
		element.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' });
		const rect = element.getBoundingClientRect();
		if (!rect.width || !rect.height || !isShown(element)) return { problem: `${selector} is not visible` };
		const x = Math.min(innerWidth - 1, Math.max(0, rect.x + rect.width / 2));
		const y = Math.min(innerHeight - 1, Math.max(0, rect.y + rect.height / 2));
		const root = element.getRootNode();
		const hit = (root.elementFromPoint ? root : document).elementFromPoint(x, y);
		if (hit && hit !== element && !element.contains(hit) && !hit.contains(element))
			return { problem: `${selector} is covered by ${selectorOf(hit)}` };
		return { x, y };
	};

	/** Where an element is on screen, and whether a press at a point would reach it; null when it is not to be seen. */
	globalThis.zafraAim = (selector, at) => {
		const element = deepFind(selector);
		const rect = element?.getBoundingClientRect();
		if (!rect?.width || !rect.height || !isShown(element)) return null;
		const x = rect.x + rect.width / 2;
		const y = rect.y + rect.height / 2;
		const root = element.getRootNode();
		const hit = (root.elementFromPoint ? root : document).elementFromPoint(at?.x ?? x, at?.y ?? y);
		return { x, y, hits: hit !== null && (hit === element || element.contains(hit)) };
	};

	/** Null when all that is asked for holds, else what does not. */
	globalThis.zafraProblem = ({ selector, text, gone, title, url }) => {
		const visible = (wanted) => {
			const element = deepFind(wanted);
			if (!element) return `nothing matches ${wanted}`;
			const rect = element.getBoundingClientRect();
			return rect.width && rect.height && isShown(element) ? null : `${wanted} is not visible`;
		};
		if (selector !== undefined) {
			const problem = visible(selector);
			if (problem) return problem;
		}
		if (gone !== undefined && visible(gone) === null) return `${gone} is still there`;
		if (text !== undefined) {
			const place = selector === undefined ? document.body : deepFind(selector);
			if (!(place?.innerText ?? '').includes(text))
				return `the words “${text}” are not on the page${selector === undefined ? '' : ` in ${selector}`}`;
		}
		if (title !== undefined && !document.title.includes(title))
			return `the title is “${document.title.slice(0, 80)}”, without “${title}”`;
		if (url !== undefined && !location.href.includes(url))
			return `the address is ${location.href.slice(0, 200)}, without “${url}”`;
		return null;
	};

	globalThis.zafraScroll = (target) => {
		if (typeof target === 'number') scrollBy({ top: target, behavior: 'instant' });
		else if (target === 'bottom') scrollTo({ top: document.documentElement.scrollHeight, behavior: 'instant' });
		else {
			const element = deepFind(target);
			if (!element) return `nothing matches ${target}`;
			element.scrollIntoView({ block: 'center', behavior: 'instant' });
		}
		return null;
	};
})();
