/** Addresses of pages: one form for one page, so that lists from different places meet. */
import { isWebUrl } from '../load/requests/address';

/** Parameters that say where a visitor came from, and change nothing on the page (practice). */
const TRACKING = /^(utm_\w+|gclid|dclid|gbraid|wbraid|fbclid|msclkid|mc_[ce]id|yclid|igshid|_ga|_gl|ref_src)$/i;
/** RFC 3986, section 2.3: these mean the same written out and percent-encoded. */
const UNRESERVED = /[A-Za-z0-9\-._~]/;
const LONGEST = 2000;

/** Why a text is no address of a page; worded in core/wording. */
export type AddressFault = 'not-web' | 'too-long';

/**
 * The address in normal form: RFC 3986, section 6.2.2 (case, percent-encoding, dot segments) and 6.2.3 (default port,
 * empty path), by the URL standard's parser; without fragment, credentials and tracking parameters.
 * @param base for relative text
 */
export function normaliseAddress(text: string, base?: string): { url: string } | { fault: AddressFault } {
	const trimmed = text.trim();
	if (trimmed.length > LONGEST) return { fault: 'too-long' };
	if (!URL.canParse(trimmed, base)) return { fault: 'not-web' };
	const url = new URL(trimmed, base);
	if (!isWebUrl(url) || /\s/.test(trimmed)) return { fault: 'not-web' };
	url.hash = '';
	url.username = '';
	url.password = '';
	url.pathname = normaliseEscapes(url.pathname);
	if (url.search) url.search = withoutTracking(url.search);
	// "?" without a query stays in the href unless it is taken off.
	return { url: url.href.replace(/\?$/, '') };
}

/** "%7e" is "~", "%c3" is "%C3" (RFC 3986, sections 6.2.2.1 and 6.2.2.2). */
function normaliseEscapes(path: string): string {
	return path.replace(/%[0-9a-f]{2}/gi, (escape) => {
		const char = String.fromCharCode(parseInt(escape.slice(1), 16));
		return UNRESERVED.test(char) ? char : escape.toUpperCase();
	});
}

/** Other parameters keep their place and their spelling. */
function withoutTracking(search: string): string {
	const kept = search
		.slice(1)
		.split('&')
		.filter((pair) => pair !== '' && !TRACKING.test(pair.split('=')[0]!));
	return kept.length ? `?${kept.join('&')}` : '';
}

/** Addresses with the same key are the same page: scheme, trailing slash and order of parameters do not tell. */
export function pageKey(url: string): string {
	const { host, pathname, search } = new URL(url);
	const path = pathname.length > 1 ? pathname.replace(/\/+$/, '') : pathname;
	const query = search ? `?${search.slice(1).split('&').sort().join('&')}` : '';
	return `${host}${path || '/'}${query}`;
}

/** Host without "www.": both names are one site. */
export const siteHost = (host: string): string =>
	host
		.toLowerCase()
		.replace(/:\d+$/, '')
		.replace(/^www\./, '');

/**
 * Whether an origin (RFC 6454) is one of a site's: over HTTP or HTTPS, at the usual port or at one that the site's host
 * names.
 */
export function isSiteOrigin(origin: string, hosts: readonly string[]): boolean {
	if (!/^https?:\/\//.test(origin) || !URL.canParse(origin)) return false;
	const url = new URL(origin);
	const bare = (host: string) => host.toLowerCase().replace(/^www\./, '');
	return url.origin === origin.toLowerCase() && hosts.some((own) => bare(own) === bare(url.host));
}

/** Whether an address belongs to a site that answers to these hosts. */
export function isOfSite(url: string, hosts: readonly string[]): boolean {
	const host = siteHost(new URL(url).host);
	return hosts.some((own) => siteHost(own) === host);
}
