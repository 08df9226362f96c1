/*
 * Runs after inPage.js in the same world of its own: when elements that somebody named are first seen, and a signature
 * of the page's markup, by which two pages of one template are known.
 */
(() => {
	if (window !== window.top) return;
	const { isInView, isShown } = globalThis.zafraSight;
	let named = [];

	/** Its picture is there, where it is one. */
	const hasCome = (element) => element.localName !== 'img' || (element.complete && element.naturalWidth > 0);

	function isSeen(selector) {
		const element = document.querySelector(selector);
		return element !== null && hasCome(element) && isShown(element) && isInView(element.getBoundingClientRect());
	}

	/** Look in each frame, after its layout and before it is painted, until all have been seen. */
	function look() {
		for (const one of named) if (one.atMs === null && isSeen(one.selector)) one.atMs = performance.now();
		if (named.some(({ atMs }) => atMs === null)) requestAnimationFrame(look);
	}

	/** @param selectors of elements in the first screen */
	globalThis.zafraWatchShown = (selectors) => {
		named = selectors.map((selector) => ({ selector, atMs: null }));
		// One that cannot be read is never seen; the others are.
		named = named.filter(({ selector }) => {
			try {
				return document.createDocumentFragment().querySelector(selector) === null;
			} catch {
				return false;
			}
		});
		requestAnimationFrame(look);
	};
	globalThis.zafraShown = () => named;

	// Pieces as `core/pages/skeleton` takes them of a page's source: a test holds both against each other.
	const LENGTH = 128;
	const MOST_PIECES = 2000;
	const CONTENT = /^(script|style|noscript|template|svg)$/;
	/** Classes that name a single thing: "post-1234", hashes. */
	const PERSONAL = /\d{2,}|[0-9a-f]{6,}/i;

	function nameOf(element) {
		const classes = [...element.classList].filter((name) => !PERSONAL.test(name)).sort();
		return [element.localName, ...classes].join('.');
	}

	/** FNV-1a. */
	function hashOf(text) {
		let hash = 0x811c9dc5;
		for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
		return hash >>> 0;
	}

	function mixed(hash) {
		let mix = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
		mix = Math.imul(mix ^ (mix >>> 13), 0xc2b2ae35);
		return (mix ^ (mix >>> 16)) >>> 0;
	}

	/** Each element with its parent, as "ul.menu>li"; how often a piece comes does not count. */
	function piecesOf() {
		const pieces = new Set();
		const open = document.documentElement ? [[document.documentElement, '']] : [];
		while (open.length && pieces.size < MOST_PIECES) {
			const [element, parent] = open.pop();
			if (CONTENT.test(element.localName)) continue;
			const own = nameOf(element);
			pieces.add(hashOf(`${parent}>${own}`));
			for (const child of element.children) open.push([child, own]);
		}
		return pieces;
	}

	/** The least of the pieces under each of 128 hash functions (Broder 1997). */
	globalThis.zafraSignature = () => {
		const pieces = piecesOf();
		return Array.from({ length: pieces.size ? LENGTH : 0 }, (_, i) => {
			const salt = mixed(i + 1);
			let least = 0xffffffff;
			for (const piece of pieces) {
				const hash = mixed(piece ^ salt);
				if (hash < least) least = hash;
			}
			return least;
		});
	};
})();
