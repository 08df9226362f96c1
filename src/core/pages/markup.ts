/** Markup that nobody has checked, as a tree of bounded depth that is walked without recursion. */
import { defaultTreeAdapter, parse, type DefaultTreeAdapterTypes } from 'parse5';

type Node = DefaultTreeAdapterTypes.Node;
export type Element = DefaultTreeAdapterTypes.Element;

/** Elements inside each other that are read (house). Browsers stop at some hundreds; each further one costs more. */
const MOST_DEPTH = 3000;

export class MarkupTooDeep extends Error {
	constructor() {
		super(`More than ${MOST_DEPTH} elements stand inside each other.`);
	}
}

/** @throws MarkupTooDeep */
export function parseMarkup(html: string): DefaultTreeAdapterTypes.Document {
	let depth = 0;
	return parse(html, {
		treeAdapter: {
			...defaultTreeAdapter,
			onItemPush() {
				if (++depth > MOST_DEPTH) throw new MarkupTooDeep();
			},
			onItemPop() {
				depth--;
			}
		}
	});
}

/**
 * Each element in the order of the document.
 * @param below what `visit` returned for its nearest element above; `top` for those above all
 * @param visit returns what its children are told, or null to leave them out
 */
export function walkElements<Told>(root: Node, top: Told, visit: (element: Element, below: Told) => Told | null): void {
	const waiting: [Node, Told][] = [[root, top]];
	for (let next = waiting.pop(); next; next = waiting.pop()) {
		const [node, below] = next;
		const stopsHere = defaultTreeAdapter.isElementNode(node) ? visit(node, below) : below;
		if (stopsHere === null || !('childNodes' in node)) continue;
		for (let i = node.childNodes.length - 1; i >= 0; i--) waiting.push([node.childNodes[i]!, stopsHere]);
	}
}

export const attributeOf = ({ attrs }: Element, name: string): string | undefined =>
	attrs.find((attribute) => attribute.name === name)?.value;
