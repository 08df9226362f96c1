/** Changes of a page's markup: only what is meant is touched, every other character stays as it was. */
import { selectAll, selectOne } from 'css-select';
import type { AnyNode, Element, ParentNode } from 'domhandler';
import { parse } from 'parse5';
import { adapter } from 'parse5-htmlparser2-tree-adapter';
import { HOLD_SCRIPT } from './hold';
import type { Rewrite } from './rewrite';
import { isMeant, type Target } from './target';

export interface EditedMarkup {
	markup: string;
	/** How often each rewrite of the list was done here. */
	applied: number[];
	/** A script was put in that a content security policy may forbid. */
	hasScript: boolean;
}

interface Splice {
	from: number;
	to: number;
	text: string;
	rewrite: number;
}

/** Attributes that name what an element fetches. */
const FETCHED = ['src', 'href', 'data', 'poster'] as const;
/** Elements whose `href` fetches something. */
const FETCHES_HREF = new Set(['link', 'image', 'use']);

/**
 * @param markup of an HTML document @param base its address
 * @param rewrites those that are about requests change the elements that ask for them
 */
export function editMarkup(markup: string, base: string, rewrites: readonly Rewrite[]): EditedMarkup {
	const document = parse(markup, { treeAdapter: adapter, sourceCodeLocationInfo: true }) as ParentNode;
	const at = { document, markup, base: baseOf(document, base) };
	const splices = rewrites.flatMap((rewrite, i) => splicesOf(rewrite, at).map((own) => ({ ...own, rewrite: i })));
	const policy = rewrites.some(isHeld) ? policiesIn(at).map((own) => ({ ...own, rewrite: -1 })) : [];
	const { text, done } = spliced(markup, [...splices, ...policy]);
	const applied = rewrites.map((_, i) => done.filter(({ rewrite }) => rewrite === i).length);
	const holds = rewrites.some((rewrite, i) => isHeld(rewrite) && applied[i]! > 0);
	return { markup: holds ? withHoldScript(text) : text, applied, hasScript: holds };
}

const isHeld = (rewrite: Rewrite) => rewrite.do === 'delay' && rewrite.until !== undefined;

interface At {
	document: ParentNode;
	markup: string;
	base: string;
}

type Edit = Omit<Splice, 'rewrite'>;

function splicesOf(rewrite: Rewrite, at: At): Edit[] {
	switch (rewrite.do) {
		case 'block':
			return elementsAskingFor(at, rewrite).flatMap((element) => removal(element));
		case 'delay':
			return rewrite.until === undefined
				? []
				: elementsAskingFor(at, rewrite).flatMap((element) => held(element, at.markup, rewrite.until!));
		case 'replace':
		case 'text':
			// What is changed no longer has the sum that the markup names.
			return elementsAskingFor(at, { address: rewrite.address }).flatMap((element) =>
				element.attribs['integrity'] === undefined ? [] : attributed(element, 'integrity', null)
			);
		case 'preload':
			return intoHead(at, preloadOf(rewrite));
		case 'preconnect':
			return intoHead(at, `<link rel="preconnect" href="https://${escaped(rewrite.host)}">`);
		case 'attribute':
			return found(at, rewrite.selector).flatMap((element) => attributed(element, rewrite.name, rewrite.value));
		case 'room':
			return found(at, rewrite.selector).flatMap((element) => roomFor(element, rewrite));
		case 'remove':
			return found(at, rewrite.selector).flatMap((element) => removal(element));
		case 'insert':
			return found(at, rewrite.selector).flatMap((element) => inserted(element, rewrite));
		default:
			return [];
	}
}

const found = ({ document }: At, selector: string): Element[] =>
	(selectAll(selector, document) as Element[]).filter((element) => element.sourceCodeLocation);

function baseOf(document: ParentNode, base: string): string {
	const href = (selectOne('base[href]', document) as Element | null)?.attribs['href'];
	return href && URL.canParse(href, base) ? new URL(href, base).href : base;
}

/** Elements that fetch what is meant, outermost alone. */
function elementsAskingFor(at: At, target: Target): Element[] {
	return found(at, FETCHED.map((name) => `[${name}]`).join(', ')).filter((element) =>
		addressesOf(element).some((own) => URL.canParse(own, at.base) && isMeant(new URL(own, at.base).href, target))
	);
}

const addressesOf = ({ name, attribs }: Element): string[] =>
	FETCHED.flatMap((attribute) => {
		const value = attribs[attribute];
		return value === undefined || (attribute === 'href' && !FETCHES_HREF.has(name)) ? [] : [value.trim()];
	});

function removal({ sourceCodeLocation: place }: Element): Edit[] {
	return place ? [{ from: place.startOffset, to: place.endOffset, text: '' }] : [];
}

/** The element waits in a template, and is put in its place again by the script at the end. */
function held({ sourceCodeLocation: place }: Element, markup: string, until: 'settled' | 'input'): Edit[] {
	if (!place) return [];
	const own = markup.slice(place.startOffset, place.endOffset);
	return [
		{
			from: place.startOffset,
			to: place.endOffset,
			text: `<template data-held-until="${until}">${own}</template>`
		}
	];
}

const preloadOf = ({ address, as, priority }: Extract<Rewrite, { do: 'preload' }>): string =>
	[
		`<link rel="preload" as="${as}" href="${escaped(address)}"`,
		priority ? ` fetchpriority="${priority}"` : '',
		// Fonts are always fetched so (CSS Fonts 4, section 4.9): without it they come twice.
		as === 'font' ? ' crossorigin' : '',
		'>'
	].join('');

function intoHead({ document }: At, text: string): Edit[] {
	const place = (selectOne('head', document) as Element | null)?.sourceCodeLocation as Located | null | undefined;
	const root = (selectOne('html', document) as Element | null)?.sourceCodeLocation as Located | null | undefined;
	const from = place?.startTag?.endOffset ?? root?.startTag?.endOffset ?? afterDoctype(document);
	return [{ from, to: from, text }];
}

interface Located {
	startTag?: {
		endOffset: number;
		startOffset: number;
		attrs?: Record<string, { startOffset: number; endOffset: number }>;
	};
	endTag?: { startOffset: number };
}

function afterDoctype(document: ParentNode): number {
	const doctype = document.children.find(({ type }: AnyNode) => type === 'directive');
	return doctype?.sourceCodeLocation?.endOffset ?? 0;
}

function attributed(element: Element, name: string, value: string | null): Edit[] {
	const place = element.sourceCodeLocation as (Located & { startOffset: number; attrs?: Located['startTag'] }) | null;
	// Elements without an end tag have their attributes beside the place itself.
	const attrs = (place?.startTag?.attrs ?? (place as { attrs?: Record<string, Edge> } | null)?.attrs) as
		Record<string, Edge> | undefined;
	const known = attrs?.[name];
	const written = value === null ? '' : `${name}="${escaped(value)}"`;
	if (known) return [{ from: known.startOffset, to: known.endOffset, text: written }];
	if (!written || !place) return [];
	const from = place.startOffset + 1 + element.name.length;
	return [{ from, to: from, text: ` ${written}` }];
}

interface Edge {
	startOffset: number;
	endOffset: number;
}

/** Elements whose width and height keep room by themselves (HTML, mapped attributes for dimensions). */
const HAS_DIMENSIONS = new Set(['img', 'video', 'iframe', 'canvas', 'source']);

function roomFor(element: Element, { width, height }: { width: number; height: number }): Edit[] {
	if (HAS_DIMENSIONS.has(element.name))
		return [...attributed(element, 'width', String(width)), ...attributed(element, 'height', String(height))];
	const own = element.attribs['style']?.trim().replace(/;?$/, ';') ?? '';
	return attributed(element, 'style', `${own}min-height:${height}px;max-width:100%;`);
}

function inserted(element: Element, { where, markup }: Extract<Rewrite, { do: 'insert' }>): Edit[] {
	const place = element.sourceCodeLocation as (Located & Edge) | null;
	if (!place) return [];
	const from = {
		before: place.startOffset,
		after: place.endOffset,
		first: place.startTag?.endOffset ?? place.endOffset,
		last: place.endTag?.startOffset ?? place.endOffset
	}[where];
	return [{ from, to: from, text: markup }];
}

/** A policy in the markup would forbid the script that puts things in again. */
const policiesIn = (at: At): Edit[] =>
	found(at, 'meta[http-equiv="content-security-policy" i]').flatMap((element) => removal(element));

/** Of two that touch the same characters the first one stands. */
function spliced(markup: string, splices: readonly Splice[]): { text: string; done: Splice[] } {
	const done: Splice[] = [];
	for (const own of splices) {
		const clashes = done.some((other) =>
			own.from === own.to || other.from === other.to
				? own.from > other.from && own.from < other.to
				: own.from < other.to && other.from < own.to
		);
		if (!clashes) done.push(own);
	}
	let text = markup;
	// From the end, so that places before stay right; of two at one place the first one comes first.
	const order = done.map((own, i) => ({ own, i })).sort((a, b) => b.own.from - a.own.from || b.i - a.i);
	for (const { own } of order) text = text.slice(0, own.from) + own.text + text.slice(own.to);
	return { text, done };
}

function withHoldScript(markup: string): string {
	const end = markup.toLowerCase().lastIndexOf('</body>');
	const script = `<script>${HOLD_SCRIPT}</script>`;
	return end < 0 ? markup + script : markup.slice(0, end) + script + markup.slice(end);
}

const escaped = (value: string): string => value.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');
