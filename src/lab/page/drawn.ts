/** What the settled page draws: the signs of each font stack, and the pictures that its style names. */
import type { Drawn } from '$core/load/record/bodies';
import { isShown, selectorOf } from './sight';

const MOST_ELEMENTS = 8000;
const MOST_STACKS = 60;
const MOST_SIGNS = 4000;
const MOST_BACKGROUNDS = 100;
const CONTENT = /^"((?:[^"\\]|\\.)*)"/;

export function drawn(): Drawn {
	const signs = new Map<string, Set<string>>();
	const backgrounds: Drawn['backgrounds'] = [];
	const add = (style: CSSStyleDeclaration, text: string) => {
		if (!text.trim()) return;
		const stack = style.fontFamily;
		if (!signs.has(stack) && signs.size >= MOST_STACKS) return;
		const own = signs.get(stack) ?? new Set();
		signs.set(stack, own);
		for (const sign of changed(text, style.textTransform)) if (own.size < MOST_SIGNS) own.add(sign);
	};
	const elements = [...document.querySelectorAll('*')].slice(0, MOST_ELEMENTS);
	for (const element of elements) {
		if (!isShown(element)) continue;
		const style = getComputedStyle(element);
		add(style, ownText(element));
		for (const pseudo of ['::before', '::after']) {
			const beside = getComputedStyle(element, pseudo);
			const content = CONTENT.exec(beside.content)?.[1];
			if (content) add(beside, content);
			addBackground(backgrounds, element, beside);
		}
		addBackground(backgrounds, element, style);
	}
	return {
		text: [...signs].map(([stack, own]) => ({ families: familiesOf(stack), signs: [...own].join('') })),
		backgrounds
	};
}

/** Text of the element itself; of a field what it holds, or says until then. */
function ownText(element: Element): string {
	if (element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement)
		return `${element.value}${element.placeholder}`;
	return [...element.childNodes]
		.filter(({ nodeType }) => nodeType === Node.TEXT_NODE)
		.map(({ textContent }) => textContent ?? '')
		.join('');
}

function changed(text: string, transform: string): string {
	if (transform === 'uppercase') return text.toUpperCase();
	if (transform === 'lowercase') return text.toLowerCase();
	return transform === 'capitalize' ? text + text.toUpperCase() : text;
}

const familiesOf = (stack: string): string[] =>
	stack.split(',').map((family) => family.trim().replace(/^["']|["']$/g, ''));

function addBackground(backgrounds: Drawn['backgrounds'], element: Element, style: CSSStyleDeclaration): void {
	const url = /^url\("([^"]+)"\)$/.exec(style.backgroundImage)?.[1];
	const fit = style.backgroundSize;
	if (!url || !/^https?:/.test(url) || backgrounds.length >= MOST_BACKGROUNDS) return;
	// At its own size, or in tiles, every pixel is shown.
	if (fit !== 'cover' && fit !== 'contain') return;
	const { width, height } = element.getBoundingClientRect();
	if (width > 0 && height > 0)
		backgrounds.push({
			url: url.slice(0, 2000),
			selector: selectorOf(element),
			width: Math.round(width),
			height: Math.round(height),
			fit
		});
}
