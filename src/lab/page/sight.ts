/** Where elements are, whether they can be seen, and how they are named. */

export interface Box {
	x: number;
	y: number;
	width: number;
	height: number;
}

export const boxOf = ({ x, y, width, height }: DOMRectReadOnly): Box => ({ x, y, width, height });

export const isInView = (rect: DOMRectReadOnly): boolean =>
	rect.width > 0 &&
	rect.height > 0 &&
	rect.top < innerHeight &&
	rect.bottom > 0 &&
	rect.left < innerWidth &&
	rect.right > 0;

export const isShown = (element: Element): boolean =>
	element.checkVisibility?.({ opacityProperty: true, visibilityProperty: true }) ?? true;

/** Its text as it is read; an element of SVG or MathML has none. */
export const wordsOf = (element: Element | null): string => (element as HTMLElement | null)?.innerText ?? '';

const MOST_STEPS = 4;

/** A short, readable path to an element: its id, or up to four steps with their classes. */
export function selectorOf(element: Element | null): string {
	const steps: string[] = [];
	for (let at = element; at && at.nodeType === Node.ELEMENT_NODE && steps.length < MOST_STEPS; at = at.parentElement) {
		if (at.id) {
			steps.unshift(`#${CSS.escape(at.id)}`);
			break;
		}
		steps.unshift(stepOf(at));
	}
	return steps.join(' > ');
}

function stepOf(element: Element): string {
	const name = element.localName;
	const classes = [...element.classList].slice(0, 2).map((part) => `.${CSS.escape(part)}`);
	if (classes.length) return name + classes.join('');
	const alike = [...(element.parentElement?.children ?? [])].filter((other) => other.localName === name);
	return alike.length > 1 ? `${name}:nth-of-type(${alike.indexOf(element) + 1})` : name;
}

/** The first element that a selector names, in shadow trees too. @throws for a selector that cannot be read */
export function deepFind(selector: string, root: ParentNode = document): Element | null {
	const direct = root.querySelector(selector);
	if (direct) return direct;
	for (const { shadowRoot } of root.querySelectorAll('*')) {
		const inside = shadowRoot && deepFind(selector, shadowRoot);
		if (inside) return inside;
	}
	return null;
}
