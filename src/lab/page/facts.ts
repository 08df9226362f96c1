/** What the page is made of, once it has settled. */
import { boxOf, isInView, isShown, selectorOf, wordsOf, type Box } from './sight';
import { markupSignature } from './signature';

const MOST_IMAGES = 300;
const MOST_FONTS = 60;
const MOST_INLINE = 100;
const MOST_SLOTS = 20;

export const pageFacts = () => ({
	title: document.title.slice(0, 300),
	language: document.documentElement?.lang || null,
	viewport: document.querySelector<HTMLMetaElement>('meta[name=viewport i]')?.content ?? null,
	...measureTree(),
	images: imageFacts(),
	fonts: fontFacts(),
	emptySlots: emptySlots(),
	inline: inlineCode(),
	text: wordsOf(document.body).replace(/\s+/g, ' ').trim().slice(0, 6000),
	overlay: overlay(),
	signature: markupSignature()
});

/** Elements of the document, not of shadow trees, as a parser of the page would count them. */
function measureTree() {
	let elements = 0;
	let depth = 0;
	let deepest: Element | null = null;
	let widest: { element: Element | null; children: number } = { element: null, children: 0 };
	// Without recursion: a page may nest deeper than the stack.
	const open: [Element, number][] = document.documentElement ? [[document.documentElement, 1]] : [];
	for (let next = open.pop(); next; next = open.pop()) {
		const [element, level] = next;
		elements++;
		if (level > depth) {
			depth = level;
			deepest = element;
		}
		const { children } = element;
		if (children.length > widest.children) widest = { element, children: children.length };
		for (const child of children) open.push([child, level + 1]);
	}
	return {
		elements,
		depth,
		deepestPath: deepest ? pathOf(deepest).slice(0, 1500) : null,
		widestParent: widest.element && { selector: selectorOf(widest.element), children: widest.children }
	};
}

function pathOf(element: Element): string {
	const path: string[] = [];
	for (let at: Element | null = element; at; at = at.parentElement)
		path.unshift(at.id ? `${at.localName}#${at.id}` : at.localName);
	return path.join(' > ');
}

function imageFacts() {
	return [...document.images].slice(0, MOST_IMAGES).map((image) => {
		const rect = image.getBoundingClientRect();
		const hasSize = image.hasAttribute('width') && image.hasAttribute('height');
		return {
			url: (image.currentSrc || image.src).slice(0, 2000),
			selector: selectorOf(image),
			naturalWidth: image.naturalWidth,
			naturalHeight: image.naturalHeight,
			shownWidth: Math.round(rect.width),
			shownHeight: Math.round(rect.height),
			lazy: image.loading === 'lazy',
			roomReserved: hasSize || /\d/.test(getComputedStyle(image).aspectRatio),
			inView: isInView(rect)
		};
	});
}

function fontFacts() {
	return [...document.fonts].slice(0, MOST_FONTS).map(({ family, weight, status, display }) => ({
		family: family.replace(/^["']|["']$/g, ''),
		weight,
		status,
		display
	}));
}

function inlineCode() {
	const elements = [...document.querySelectorAll('script:not([src]), style')].slice(0, MOST_INLINE);
	return elements.map(({ tagName, textContent }) => {
		const text = textContent ?? '';
		const kind = tagName === 'STYLE' ? ('style' as const) : ('script' as const);
		return { kind, start: text.trim().slice(0, 200), bytes: new Blob([text]).size };
	});
}

const MEDIA = 'img,svg,video,canvas,iframe,object,embed,input,button,select,textarea,audio,picture,hr';

function hasSomething(element: Element): boolean {
	return (
		element.matches(MEDIA) ||
		element.querySelector(MEDIA) !== null ||
		element.shadowRoot !== null ||
		getComputedStyle(element).backgroundImage !== 'none' ||
		(element.textContent ?? '').trim() !== '' ||
		getComputedStyle(element, '::before').content !== 'none' ||
		getComputedStyle(element, '::after').content !== 'none'
	);
}

/** The outermost boxes that take up space and hold neither text nor anything that paints. */
function emptySlots() {
	const slots: { selector: string; box: Box }[] = [];
	const walk = (element: Element): void => {
		if (slots.length >= MOST_SLOTS) return;
		for (const child of element.children) {
			const rect = child.getBoundingClientRect();
			if (rect.width < 100 || rect.height < 50 || !isShown(child)) {
				if (child.children.length && rect.height > 0) walk(child);
			} else if (hasSomething(child)) walk(child);
			else if (getComputedStyle(child).position !== 'fixed')
				slots.push({ selector: selectorOf(child), box: boxOf(rect) });
		}
	};
	if (document.body) walk(document.body);
	return slots;
}

/** Points of the screen, as shares of its width and height, at which a layer over the page would be met. */
const LOOKED_AT = [
	[0.5, 0.5],
	[0.5, 0.9],
	[0.5, 0.1]
] as const;

/** A layer that lies over the page: fixed or a dialog, with words, and large or in front of the middle. */
function overlay() {
	for (const element of layers()) {
		const rect = element.getBoundingClientRect();
		const text = wordsOf(element).trim();
		const share = (rect.width * rect.height) / (innerWidth * innerHeight);
		const isConsent = /cookie|consent|privacy/i.test(text);
		if ((share > 0.4 && text) || (isConsent && share > 0.03))
			return { selector: selectorOf(element), box: boxOf(rect), text: text.slice(0, 160) };
	}
	return null;
}

function layers(): Set<Element> {
	const found = new Set<Element>();
	for (const [x, y] of LOOKED_AT) {
		let at = document.elementFromPoint(innerWidth * x, innerHeight * y);
		for (; at && at !== document.body; at = at.parentElement)
			if (getComputedStyle(at).position === 'fixed' || at.localName === 'dialog') found.add(at);
	}
	return found;
}
