/** Sitemaps as the protocol describes them (sitemaps.org, 0.9): lists of pages, indexes of lists, plain text. */
import { SaxesParser, type SaxesTagNS } from 'saxes';

/** Limits of the protocol for one file. */
export const MOST_ENTRIES = 50_000;
export const MOST_BYTES = 50 * 1024 * 1024;

export interface SitemapEntry {
	/** As written. */
	address: string;
	/** W3C date, as written; null without. */
	lastmod: string | null;
}

export type SitemapFault = 'html' | 'raw-ampersand' | 'empty' | 'not-a-sitemap' | 'broken' | 'too-many' | 'too-large';

export interface SitemapFile {
	/** `index` lists further sitemaps. */
	kind: 'pages' | 'index' | null;
	entries: SitemapEntry[];
	/** What was wrong with it; what could be read stands in `entries` all the same. */
	faults: SitemapFault[];
	/** Line of a fault that has one, from 1. */
	lines: Partial<Record<SitemapFault, number>>;
}

const NAMESPACE = 'http://www.sitemaps.org/schemas/sitemap/0.9';
const ROOTS = { urlset: 'pages', sitemapindex: 'index' } as const;
const ENTRY = /^(url|sitemap)$/;
/** By so many characters it is known what a file is. */
const LONGEST_START = 15;
/** White space before it, an address, and elements inside each other: more has no sitemap (house). */
const LONGEST_BLANK = 10_000;
const LONGEST_ADDRESS = 10_000;
const MOST_DEPTH = 50;

/** Ends the parser in the middle of a text: what comes after would still be read, only to be thrown away. */
class Enough extends Error {}

const CDATA = { begins: '<![CDATA[', ends: ']]>' };
/** XML 1.0, section 4.6: the five names that are always known; section 4.1: numbers. */
/** No name or mark is longer. */
const LONGEST_MARK = 12;
const LOOSE = /&(?!(?:amp|lt|gt|quot|apos|#\d+|#x[0-9a-f]+);)/gi;

/** Programs write the "&" of an address as it stands, which no parser reads on from: it is written out before. */
class LooseAmpersands {
	/** Line of the first, from 1; null without. */
	firstLine: number | null = null;
	#lines = 1;
	#isCdata = false;

	#held = '';

	/** @param isAll nothing more comes: what could have been the beginning of a name or a mark is none */
	escaped(more: string, isAll = false): string {
		const all = this.#held + more;
		const tail = Math.max(0, all.length - LONGEST_MARK);
		const begun = isAll ? -1 : all.slice(tail).search(/[&<\]]/);
		const text = begun < 0 ? all : all.slice(0, tail + begun);
		this.#held = all.slice(text.length);
		let made = '';
		for (let at = 0; at < text.length;) {
			const mark = this.#isCdata ? CDATA.ends : CDATA.begins;
			const found = text.indexOf(mark, at);
			const end = found < 0 ? text.length : found + mark.length;
			const part = text.slice(at, end);
			made += this.#isCdata ? part : part.replace(LOOSE, '&amp;');
			if (!this.#isCdata) this.#note(part);
			this.#lines += part.split('\n').length - 1;
			if (found >= 0) this.#isCdata = !this.#isCdata;
			at = end;
		}
		return made;
	}

	#note(part: string): void {
		if (this.firstLine !== null) return;
		const first = part.search(LOOSE);
		if (first >= 0) this.firstLine = this.#lines + part.slice(0, first).split('\n').length - 1;
	}
}

/** Reads a sitemap as its text comes; memory grows with its entries alone. */
export class SitemapReader {
	#file: SitemapFile = { kind: null, entries: [], faults: [], lines: {} };
	#ampersands = new LooseAmpersands();
	#parser = new SaxesParser({ xmlns: true, fragment: false });
	#mode: 'unknown' | 'xml' | 'text' | 'over' = 'unknown';
	#start = '';
	#rest = '';
	#path: string[] = [];
	#text = '';
	#entry: SitemapEntry | null = null;

	constructor(private readonly most = MOST_ENTRIES) {
		this.#parser.on('opentag', (tag) => this.#open(tag));
		this.#parser.on('text', (text) => this.#add(text));
		this.#parser.on('cdata', (text) => this.#add(text));
		this.#parser.on('closetag', (tag) => this.#close(tag.local));
		// A parser without a handler for faults throws them: what came before stays.
		this.#parser.on('error', () => this.#fail('broken', this.#parser.line));
	}

	write(text: string): void {
		if (this.#mode === 'over') return;
		if (this.#mode === 'unknown') return this.#begin(text, false);
		if (this.#mode === 'text') return this.#lines(text);
		this.#parse(this.#ampersands.escaped(text));
	}

	/** @param tooLarge it was cut off by the limit of bytes */
	end(tooLarge = false): SitemapFile {
		if (tooLarge) this.#file.faults.unshift('too-large');
		if (this.#mode === 'unknown') this.#begin('', true);
		if (this.#mode === 'text') this.#line(this.#rest);
		if (this.#mode === 'xml' && !tooLarge) this.#finish();
		const { firstLine } = this.#ampersands;
		const { kind, entries, faults } = this.#file;
		if (kind === null && faults.length === 0) this.#fault('not-a-sitemap');
		if (kind !== null && entries.length === 0 && faults.length === 0) this.#fault('empty');
		if (firstLine !== null) this.#fault('raw-ampersand', firstLine);
		return this.#file;
	}

	#finish(): void {
		this.#parse(this.#ampersands.escaped('', true));
		if (this.#mode === 'xml') this.#parser.close();
	}

	#parse(text: string): void {
		try {
			this.#parser.write(text);
		} catch (error) {
			if (!(error instanceof Enough)) throw error;
		}
	}

	/** @param isAll nothing more comes */
	#begin(text: string, isAll: boolean): void {
		this.#start += text;
		const body = this.#start.trimStart();
		if (isAll && body === '') return this.#fail('empty');
		if (this.#start.length - body.length > LONGEST_BLANK) return this.#fail('not-a-sitemap');
		if (!isAll && body.length < LONGEST_START) return;
		if (/^<(!doctype html|html|head|body)\b/i.test(body)) return this.#fail('html');
		this.#mode = body.startsWith('<') ? 'xml' : 'text';
		if (this.#mode === 'text') this.#file.kind = 'pages';
		// The declaration must be the first thing of a document.
		this.write(body);
	}

	#open({ local, uri }: SaxesTagNS): void {
		if (this.#mode === 'over') return;
		this.#text = '';
		if (this.#path.length === 0) {
			const kind = Object.hasOwn(ROOTS, local) ? ROOTS[local as keyof typeof ROOTS] : null;
			if (/^html$/i.test(local)) return this.#fail('html');
			if (kind === null) return this.#fail('not-a-sitemap');
			this.#file.kind = kind;
		}
		// Elements of extensions (images, languages) have namespaces of their own.
		const isOwn = uri === NAMESPACE || uri === '';
		if (this.#path.length >= MOST_DEPTH) this.#stop('broken');
		this.#path.push(isOwn ? local : `(${local})`);
		if (this.#path.length === 2 && ENTRY.test(local)) this.#entry = { address: '', lastmod: null };
	}

	#close(local: string): void {
		const isOwn = this.#path.at(-1) === local;
		this.#path.pop();
		if (!this.#entry || this.#mode === 'over') return;
		if (isOwn && this.#path.length === 2 && local === 'loc') this.#entry.address = this.#text.trim();
		if (isOwn && this.#path.length === 2 && local === 'lastmod') this.#entry.lastmod = this.#text.trim() || null;
		if (this.#path.length !== 1) return;
		if (this.#entry.address) this.#keep(this.#entry);
		this.#entry = null;
	}

	#lines(text: string): void {
		const lines = (this.#rest + text).split(/\r?\n/);
		this.#rest = lines.pop()!;
		for (const line of lines) this.#line(line);
		if (this.#rest.length > LONGEST_ADDRESS) this.#fail('not-a-sitemap');
	}

	/** In plain text each line is an address; others are none. */
	#line(line: string): void {
		const address = line.trim();
		if (address === '') return;
		if (/^https?:\/\//i.test(address)) this.#keep({ address, lastmod: null });
		else this.#fault('not-a-sitemap');
	}

	#add(text: string): void {
		if (this.#text.length < LONGEST_ADDRESS) this.#text += text;
	}

	#keep(entry: SitemapEntry): void {
		if (this.#file.entries.length < this.most) this.#file.entries.push(entry);
		else if (this.#mode === 'xml') this.#stop('too-many');
		else this.#fail('too-many');
	}

	#fail(fault: SitemapFault, line?: number): void {
		this.#fault(fault, line);
		this.#mode = 'over';
	}

	/** @throws Enough */
	#stop(fault: SitemapFault): never {
		this.#fail(fault, this.#parser.line);
		throw new Enough();
	}

	#fault(fault: SitemapFault, line?: number): void {
		if (this.#file.faults.includes(fault)) return;
		this.#file.faults.push(fault);
		if (line !== undefined) this.#file.lines[fault] = line;
	}
}
