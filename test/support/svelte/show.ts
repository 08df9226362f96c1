/** A component as the server renders it, to be looked at as a document. */
import { defaultTreeAdapter, parseFragment, type DefaultTreeAdapterTypes } from 'parse5';
import type { Component } from 'svelte';

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

/** An element with what tests ask of it. */
export class Shown {
	constructor(private readonly node: Element | DefaultTreeAdapterTypes.DocumentFragment) {}

	/** Its words, as a reader gets them: white space joined. */
	get text(): string {
		return textOf(this.node).replace(/\s+/g, ' ').trim();
	}

	/** As it stands there: the value of a text area. */
	get rawText(): string {
		return textOf(this.node);
	}

	get name(): string {
		return 'tagName' in this.node ? this.node.tagName : '';
	}

	/** Of an attribute, spaces that do not break as plain ones; null without it. */
	attribute(name: string): string | null {
		return 'attrs' in this.node
			? (this.node.attrs.find((attr) => attr.name === name)?.value.replaceAll('\u00a0', ' ') ?? null)
			: null;
	}

	/** All within, in their order. @param what a tag, `.class`, `[attribute]`, `[attribute=value]`, or several joined */
	all(what: string): Shown[] {
		const fits = matcher(what);
		return [...elementsIn(this.node)].filter(fits).map((element) => new Shown(element));
	}

	/** The only or first one. @throws where there is none */
	the(what: string): Shown {
		const [first] = this.all(what);
		if (!first) throw new Error(`Nothing matches ${what} in: ${this.text.slice(0, 300)}`);
		return first;
	}

	has(what: string): boolean {
		return this.all(what).length > 0;
	}

	/** Words of each element that matches. */
	texts(what: string): string[] {
		return this.all(what).map(({ text }) => text);
	}

	/** Rows of a table with the words of their cells. */
	rows(): string[][] {
		return this.all('tr').map((row) => row.all('th,td').map(({ text }) => text));
	}
}

function* elementsIn(node: Node): Generator<Element> {
	if (!('childNodes' in node)) return;
	for (const child of node.childNodes) {
		if (defaultTreeAdapter.isElementNode(child)) yield child;
		yield* elementsIn(child);
	}
}

function textOf(node: Node): string {
	if (defaultTreeAdapter.isTextNode(node)) return node.value;
	if (!('childNodes' in node)) return '';
	const isBlock = 'tagName' in node && /^(p|div|tr|td|th|li|h\d|br|section|option|label)$/.test(node.tagName);
	const words = node.childNodes.map(textOf).join('');
	return isBlock ? ` ${words} ` : words;
}

function matcher(what: string): (element: Element) => boolean {
	const options = what.split(',').map((name) => name.trim().match(/^[\w-]+|\.[\w-]+|\[[^\]]+\]/g) ?? []);
	return (element) => options.some((parts) => parts.every((part) => fitsPart(element, part)));
}

function fitsPart({ tagName, attrs }: Element, part: string): boolean {
	const valueOf = (name: string) => attrs.find((attr) => attr.name === name)?.value;
	if (part.startsWith('.')) return (valueOf('class') ?? '').split(/\s+/).includes(part.slice(1));
	if (!part.startsWith('[')) return tagName === part;
	const [name, value] = part.slice(1, -1).split('=') as [string, string | undefined];
	return value === undefined ? valueOf(name) !== undefined : valueOf(name) === value.replace(/^"|"$/g, '');
}

/** @param props as a page gives them */
export async function show<Props extends Record<string, unknown>>(
	component: Component<Props>,
	props: Props
): Promise<Shown> {
	// As components import it: a test file may itself be loaded in the older way, which has a copy of its own.
	const { render } = await import('svelte/server');
	// Its types ask for exact props where there are none.
	const { body } = (render as (component: unknown, options: object) => { body: string })(component, { props });
	return new Shown(parseFragment(body));
}

/** The body of a whole document. */
export const shownPage = (html: string): Shown => new Shown(parseFragment(html.replace(/^[\s\S]*?<body[^>]*>/, '')));
