/** Following the links of a site: bounded, polite, as its robots.txt allows (RFC 9309). */
import { setTimeout as pause } from 'node:timers/promises';
import robotsParser from 'robots-parser';
import { isOfSite, normaliseAddress, pageKey } from '$core/pages/address';
import type { GatherProblem } from '$core/pages/gathering';
import { attributeOf, MarkupTooDeep, parseMarkup, walkElements } from '$core/pages/markup';
import { AGENT, fetchOutward, OutwardFault, type Outward } from '../../base/outward';
import type { Gathered } from './gathered';

/** Pages of one crawl, and the rest between two requests (house). */
export const MOST_CRAWLED = 200;
const REST_MS = 400;
/** A site that asks for a longer rest gets it, up to this. */
const MOST_REST_MS = 5000;
const PAGE = { withinMs: 15_000, mostBytes: 3_000_000, accept: 'text/html' };
const ROBOTS = { withinMs: 10_000, mostBytes: 500_000, accept: 'text/plain' };
/** Files that are no pages, by their ending. */
const NO_PAGE =
	/\.(jpe?g|png|gif|webp|avif|svg|ico|pdf|zip|gz|mp[34]|webm|woff2?|css|js|json|xml|txt|csv|docx?|xlsx?)$/i;

export interface CrawlOptions {
	start: string;
	hosts: readonly string[];
	most: number;
	outward: Outward;
	/** Whether to go on; asked before each page. */
	goesOn(): boolean;
	onProgress(fetched: number, found: number): Promise<void>;
}

type Robots = ReturnType<typeof robotsParser>;

/** Nothing is thrown: what could be read is kept, the rest is said. */
export async function crawl({ start, hosts, most, outward, goesOn, onProgress }: CrawlOptions): Promise<Gathered> {
	const problems: GatherProblem[] = [];
	const left = { foreign: 0, bad: 0, over: 0 };
	const robots = await robotsOf(start, outward);
	const restMs = Math.min(MOST_REST_MS, Math.max(REST_MS, 1000 * Number(robots?.getCrawlDelay(AGENT) ?? 0)));
	const urls = new Map<string, string>([[pageKey(start), start]]);
	const pages = new Map<string, string>();
	const waiting = [start];
	const forbidden = new Set<string>();
	let fetched = 0;
	while (waiting.length > 0 && fetched < most && goesOn()) {
		const next = waiting.shift()!;
		if (robots?.isAllowed(next, AGENT) === false) {
			forbidden.add(next);
			continue;
		}
		if (fetched > 0) await pause(restMs);
		fetched++;
		const page = await fetchPage(next, outward, problems);
		if (page && isOfSite(page.url, hosts)) {
			pages.set(pageKey(page.url), page.url);
			for (const url of readMarkup(() => linksOf(page.html, page.url), next, problems) ?? []) {
				if (!isOfSite(url, hosts)) left.foreign++;
				else if (!urls.has(pageKey(url)) && !NO_PAGE.test(new URL(url).pathname)) {
					urls.set(pageKey(url), url);
					waiting.push(url);
				}
			}
		} else if (page) problems.push({ where: next, fault: 'off-site', detail: new URL(page.url).host });
		await onProgress(fetched, pages.size);
	}
	left.over = waiting.length;
	if (forbidden.size) problems.push({ where: [...forbidden][0]!, fault: 'robots', detail: String(forbidden.size) });
	return { pages: [...pages.values()].map((url) => ({ url, lastmod: null })), files: fetched, left, problems };
}

/** Without the file, or without an answer, everything is allowed (RFC 9309, sections 2.3.1.3 and 2.3.1.4). */
export async function robotsOf(start: string, outward: Outward): Promise<Robots | null> {
	const address = new URL('/robots.txt', start).href;
	try {
		const { status, body } = await fetchOutward(address, outward, ROBOTS);
		return status === 200 ? robotsParser(address, body.toString('utf8')) : null;
	} catch (error) {
		if (error instanceof OutwardFault) return null;
		throw error;
	}
}

export interface FetchedPage {
	/** After redirects. */
	url: string;
	html: string;
}

/** Null when it is no page; why stands among the problems. */
export async function fetchPage(
	where: string,
	outward: Outward,
	problems: GatherProblem[]
): Promise<FetchedPage | null> {
	try {
		const { status, type, body, url } = await fetchOutward(where, outward, PAGE);
		if (status !== 200) problems.push({ where, fault: 'status', detail: String(status) });
		if (status !== 200 || !/html/.test(type)) return null;
		return { url, html: body.toString('utf8') };
	} catch (error) {
		if (!(error instanceof OutwardFault)) throw error;
		problems.push({ where, fault: error.fault, detail: error.host });
		return null;
	}
}

/** What is made of a page's markup; null for markup that nests too deep, which stands among the problems. */
export function readMarkup<Read>(read: () => Read, where: string, problems: GatherProblem[]): Read | null {
	try {
		return read();
	} catch (error) {
		if (!(error instanceof MarkupTooDeep)) throw error;
		problems.push({ where, fault: 'too-deep', detail: '' });
		return null;
	}
}

/**
 * Addresses that a page links to, in normal form; those that its links ask not to follow are left out.
 * @throws MarkupTooDeep
 */
export function linksOf(html: string, base: string): string[] {
	const links = new Set<string>();
	walkElements(parseMarkup(html), true, (element) => {
		const href = element.tagName === 'a' ? attributeOf(element, 'href') : undefined;
		const isFollowed = href && !/\bnofollow\b/i.test(attributeOf(element, 'rel') ?? '');
		const read = isFollowed ? normaliseAddress(href, base) : null;
		if (read && 'url' in read) links.add(read.url);
		return true;
	});
	return [...links];
}
