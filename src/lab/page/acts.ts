/** Whether elements can be pressed, where, and what of a state holds. */
import type { StepState } from '$core/load/journey/steps';
import type { Aim, Point } from './inPage';
import { deepFind, isShown, selectorOf, wordsOf } from './sight';

const middleOf = ({ x, y, width, height }: DOMRectReadOnly): Point => ({ x: x + width / 2, y: y + height / 2 });
const within = (value: number, most: number) => Math.min(most, Math.max(0, value));

const isVisible = (element: Element): boolean => {
	const { width, height } = element.getBoundingClientRect();
	return width > 0 && height > 0 && isShown(element);
};

/** What lies at a point of the element's own tree. */
function elementAt(element: Element, { x, y }: Point): Element | null {
	const root = element.getRootNode();
	return (root instanceof ShadowRoot ? root : document).elementFromPoint(x, y);
}

export function pointOf(selector: string): Point | { problem: string } {
	const element = deepFind(selector);
	if (!element) return { problem: `nothing matches ${selector}` };
	element.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' });
	if (!isVisible(element)) return { problem: `${selector} is not visible` };
	const middle = middleOf(element.getBoundingClientRect());
	const point = { x: within(middle.x, innerWidth - 1), y: within(middle.y, innerHeight - 1) };
	const hit = elementAt(element, point);
	if (hit && !element.contains(hit) && !hit.contains(element))
		return { problem: `${selector} is covered by ${selectorOf(hit)}` };
	return point;
}

export function aimAt(selector: string, at: Point | null): Aim | null {
	const element = deepFind(selector);
	if (!element || !isVisible(element)) return null;
	const middle = middleOf(element.getBoundingClientRect());
	return { ...middle, hits: element.contains(elementAt(element, at ?? middle)) };
}

export function problemOf({ selector, text, gone, title, url, plays }: StepState): string | null {
	const missing = (wanted: string) => {
		const element = deepFind(wanted);
		if (!element) return `nothing matches ${wanted}`;
		return isVisible(element) ? null : `${wanted} is not visible`;
	};
	const unseen = selector === undefined ? null : missing(selector);
	if (unseen) return unseen;
	if (gone !== undefined && missing(gone) === null) return `${gone} is still there`;
	if (text !== undefined && !wordsOf(selector === undefined ? document.body : deepFind(selector)).includes(text))
		return `the words “${text}” are not on the page${selector === undefined ? '' : ` in ${selector}`}`;
	if (title !== undefined && !document.title.includes(title))
		return `the title is “${document.title.slice(0, 80)}”, without “${title}”`;
	if (url !== undefined && !location.href.includes(url))
		return `the address is ${location.href.slice(0, 200)}, without “${url}”`;
	return plays === undefined ? null : standstillOf(plays);
}

function standstillOf(selector: string): string | null {
	const media = deepFind(selector);
	if (!(media instanceof HTMLMediaElement)) return `${selector} is no video or sound`;
	return media.paused || media.currentTime === 0 ? `${selector} does not play` : null;
}

export function scrollTo(target: number | string): string | null {
	if (typeof target === 'number') globalThis.scrollBy({ top: target, behavior: 'instant' });
	else if (target === 'bottom')
		globalThis.scrollTo({ top: document.documentElement.scrollHeight, behavior: 'instant' });
	else {
		const element = deepFind(target);
		if (!element) return `nothing matches ${target}`;
		element.scrollIntoView({ block: 'center', behavior: 'instant' });
	}
	return null;
}
