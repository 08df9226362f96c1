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

export type SitemapFault = 'html' | 'empty' | 'not-a-sitemap' | 'broken' | 'too-many' | 'too-large';

export interface SitemapFile {
	/** `index` lists further sitemaps. */
	kind: 'pages' | 'index' | null;
	entries: SitemapEntry[];
	/** What was wrong with it; what could be read stands in `entries` all the same. */
	faults: SitemapFault[];
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

/** Reads a sitemap as its text comes; memory grows with its entries alone. */
export class SitemapReader {
	#file: SitemapFile = { kind: null, entries: [], faults: [] };
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
		this.#parser.on('error', () => this.#fail('broken'));
	}

	write(text: string): void {
		if (this.#mode === 'over') return;
		if (this.#mode === 'unknown') return this.#begin(text, false);
		if (this.#mode === 'text') return this.#lines(text);
		try {
			this.#parser.write(text);
		} catch (error) {
			if (!(error instanceof Enough)) throw error;
		}
	}

	/** @param tooLarge it was cut off by the limit of bytes */
	end(tooLarge = false): SitemapFile {
		if (tooLarge) this.#file.faults.unshift('too-large');
		if (this.#mode === 'unknown') this.#begin('', true);
		if (this.#mode === 'text') this.#line(this.#rest);
		if (this.#mode === 'xml' && !tooLarge) this.#parser.close();
		const { kind, entries, faults } = this.#file;
		if (kind === null && faults.length === 0) this.#fault('not-a-sitemap');
		if (kind !== null && entries.length === 0 && faults.length === 0) this.#fault('empty');
		return this.#file;
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

	#fail(fault: SitemapFault): void {
		this.#fault(fault);
		this.#mode = 'over';
	}

	/** @throws Enough */
	#stop(fault: SitemapFault): never {
		this.#fail(fault);
		throw new Enough();
	}

	#fault(fault: SitemapFault): void {
		if (!this.#file.faults.includes(fault)) this.#file.faults.push(fault);
	}
}
