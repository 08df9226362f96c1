/** The skeleton of a page: its tags and classes without its content. Pages of one template have nearly the same. */
import { attributeOf, parseMarkup, walkElements, type Element } from './markup';

/** Of a template's pages at least this share of the pieces is common (house). */
export const SAME_TEMPLATE = 0.7;
/** Pieces that are kept of a page: more do not tell templates better. */
const MOST_PIECES = 2000;
const CONTENT = new Set(['script', 'style', 'noscript', 'template', 'svg']);
/** Classes that name a single thing: "post-1234", hashes. */
const PERSONAL = /\d{2,}|[0-9a-f]{6,}/i;

/**
 * Pieces of a page's markup: each element with its parent, as "ul.menu>li". How often a piece comes does not count: a
 * listing with three entries is the same template as one with thirty.
 * @param html as it was served
 * @throws MarkupTooDeep
 */
export function skeletonOf(html: string): Set<string> {
	const pieces = new Set<string>();
	walkElements(parseMarkup(html), '', (element, parent) => {
		if (CONTENT.has(element.tagName) || pieces.size >= MOST_PIECES) return null;
		const own = elementName(element);
		pieces.add(`${parent}>${own}`);
		return own;
	});
	return pieces;
}

function elementName(element: Element): string {
	const classes = attributeOf(element, 'class')?.split(/\s+/) ?? [];
	const kept = classes.filter((name) => name && !PERSONAL.test(name)).sort();
	return [element.tagName, ...kept].join('.');
}

/** Share of the pieces that both have, of all that either has (Jaccard), 0 to 1; two empty ones are alike. */
export function skeletonLikeness(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
	let both = 0;
	for (const piece of a) if (b.has(piece)) both++;
	const all = a.size + b.size - both;
	return all === 0 ? 1 : both / all;
}
