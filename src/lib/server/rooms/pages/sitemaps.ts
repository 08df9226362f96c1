/** Reading the sitemaps of a site: one file or an index of many, by address or as a file. */
import { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { LineDecoder } from '$core/formats/textLines';
import { MOST_BYTES, MOST_ENTRIES, SitemapReader, type SitemapEntry, type SitemapFile } from '$core/formats/sitemap';
import { isOfSite, normaliseAddress } from '$core/pages/address';
import type { GatherProblem } from '$core/pages/gathering';
import { robotsOf } from './crawl';
import type { Gathered } from './gathered';
import { fetchOutward, OutwardFault, readUpTo, type Outward } from '../../base/outward';
import type { FoundPage } from './queries/changes';

/** An index may name so many files; further ones are left aside (house: a site of 50,000 pages has few). */
const MOST_FILES = 500;
const FETCH = { withinMs: 30_000, mostBytes: MOST_BYTES, accept: 'application/xml, text/xml, text/plain' };
const GZIP = Buffer.from([0x1f, 0x8b]);
/** Bytes that are read between two looks at the clock: reading gives way to others. */
const SLICE = 1 << 18;

/** The file of a sitemap, gzip or not (sitemaps.org: files may be compressed with gzip). */
export async function readSitemap(bytes: Buffer, isCut = false): Promise<SitemapFile> {
	const reader = new SitemapReader(MOST_ENTRIES);
	const decoder = new LineDecoder();
	const isPacked = bytes.subarray(0, 2).equals(GZIP);
	const plain = isPacked ? await unpack(bytes) : { body: bytes, isCut };
	for (let from = 0; from < plain.body.length; from += SLICE) {
		reader.write(decoder.write(plain.body.subarray(from, from + SLICE)));
		await new Promise((next) => setImmediate(next));
	}
	reader.write(decoder.end());
	return reader.end(plain.isCut);
}

/** What is broken in the middle is read as far as it goes. */
async function unpack(bytes: Buffer): Promise<{ body: Buffer; isCut: boolean }> {
	const chunks: Uint8Array[] = [];
	try {
		return await readUpTo(noted(Readable.from([bytes]).pipe(createGunzip()), chunks), MOST_BYTES);
	} catch {
		return { body: Buffer.concat(chunks), isCut: false };
	}
}

async function* noted(stream: AsyncIterable<Uint8Array>, chunks: Uint8Array[]) {
	for await (const chunk of stream) {
		chunks.push(chunk);
		yield chunk;
	}
}

/** Pages of the site among entries; each once. */
class Collected {
	readonly pages = new Map<string, FoundPage>();
	readonly left = { foreign: 0, bad: 0, over: 0 };

	constructor(private readonly hosts: readonly string[]) {}

	add({ address, lastmod }: SitemapEntry): void {
		const read = normaliseAddress(address);
		if ('fault' in read) this.left.bad++;
		else if (!isOfSite(read.url, this.hosts)) this.left.foreign++;
		else if (this.pages.size >= MOST_ENTRIES && !this.pages.has(read.url)) this.left.over++;
		else this.pages.set(read.url, { url: read.url, lastmod });
	}

	result(files: number, problems: GatherProblem[]): Gathered {
		return { pages: [...this.pages.values()], files, left: this.left, problems };
	}
}

const problemsOf = (where: string, { faults, lines }: SitemapFile): GatherProblem[] =>
	faults.map((fault) => ({ where, fault, detail: String(lines[fault] ?? '') }));

/** Of a file that the analyst gave: an index in it names files that are elsewhere. */
export async function gatherFile(name: string, bytes: Buffer, hosts: readonly string[]): Promise<Gathered> {
	const file = await readSitemap(bytes);
	const { kind, entries } = file;
	const collected = new Collected(hosts);
	if (kind !== 'index') for (const entry of entries) collected.add(entry);
	const problems = problemsOf(name, file);
	const indexed: GatherProblem[] =
		kind === 'index' ? [{ where: name, fault: 'index-file', detail: String(entries.length) }] : [];
	return collected.result(1, [...problems, ...indexed]);
}

/**
 * Of an address, following indexes. Nothing is thrown: what could be read is kept, the rest is said.
 * @param onProgress told after each file
 */
export async function gatherSitemaps(
	address: string,
	hosts: readonly string[],
	outward: Outward,
	onProgress: (files: number, pages: number) => Promise<void>
): Promise<Gathered> {
	const collected = new Collected(hosts);
	const problems: GatherProblem[] = [];
	const seen = new Set<string>();
	const waiting = [address];
	let files = 0;
	for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
		if (seen.has(next)) {
			problems.push({ where: next, fault: 'cycle', detail: '' });
			continue;
		}
		seen.add(next);
		if (files >= MOST_FILES) {
			problems.push({ where: next, fault: 'too-many-files', detail: String(waiting.length + 1) });
			break;
		}
		files++;
		const file = await fetchSitemap(next, outward, problems);
		if (!file && files === 1) waiting.push(...(await namedByRobots(address, outward)));
		if (file?.kind === 'index') waiting.push(...file.entries.map((entry) => entry.address));
		else for (const entry of file?.entries ?? []) collected.add(entry);
		await onProgress(files, collected.pages.size);
	}
	return collected.result(files, problems);
}

/** Where a site says that its sitemaps are (sitemaps.org, "Specifying the Sitemap location in your robots.txt"). */
async function namedByRobots(address: string, outward: Outward): Promise<string[]> {
	const named = (await robotsOf(address, outward))?.getSitemaps() ?? [];
	return named.filter((name) => name !== address).slice(0, MOST_FILES);
}

async function fetchSitemap(where: string, outward: Outward, problems: GatherProblem[]): Promise<SitemapFile | null> {
	try {
		const { status, body, isCut } = await fetchOutward(where, outward, FETCH);
		if (status !== 200) {
			problems.push({ where, fault: 'status', detail: String(status) });
			return null;
		}
		const file = await readSitemap(body, isCut);
		problems.push(...problemsOf(where, file));
		return file;
	} catch (error) {
		if (!(error instanceof OutwardFault)) throw error;
		problems.push({ where, fault: error.fault, detail: error.host });
		return null;
	}
}
