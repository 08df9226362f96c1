/** How responses were delivered: compression and caching, from their headers. */
import type { RequestRecord } from '../record/record';

/** A response header by its lower-case name; null without one. */
export function headerOf(request: Pick<RequestRecord, 'responseHeaders'>, name: string): string | null {
	return request.responseHeaders.find(([one]) => one.toLowerCase() === name)?.[1] ?? null;
}

const TEXT = /^(text\/|application\/(javascript|x-javascript|json|manifest\+json|xml|ld\+json|wasm)|image\/svg\+xml)/;

export interface Compression {
	/** br, gzip, zstd, deflate; null for none. */
	encoding: string | null;
	/** Of this kind of file compression is expected (practice: text of 1 kB and more). */
	expected: boolean;
	/** Bytes that gzip would save; null when not known. */
	wouldSave: number | null;
}

export function compressionOf(
	request: Pick<RequestRecord, 'responseHeaders' | 'mimeType' | 'decodedBytes' | 'body'>
): Compression {
	const encoding = headerOf(request, 'content-encoding');
	const real = encoding && encoding.toLowerCase() !== 'identity' ? encoding.toLowerCase() : null;
	const expected = TEXT.test(request.mimeType ?? '') && (request.decodedBytes ?? 0) >= 1000;
	const wouldSave = !real && expected && request.body ? Math.max(0, request.body.bytes - request.body.gzipBytes) : null;
	return { encoding: real, expected, wouldSave };
}

export type CacheLifetime =
	| { kind: 'none'; seconds: 0 }
	| { kind: 'revalidate'; seconds: 0 }
	| { kind: 'fresh'; seconds: number }
	| { kind: 'unsaid'; seconds: null };

/**
 * How long a browser may use the response without asking again.
 * Source: RFC 9111, sections 4.2.1 and 5.2.2: no-store, then no-cache, then max-age, then Expires minus Date.
 */
export function cacheLifetimeOf(request: Pick<RequestRecord, 'responseHeaders'>): CacheLifetime {
	const control = (headerOf(request, 'cache-control') ?? '').toLowerCase();
	const directives = control.split(',').map((part) => part.trim());
	if (directives.includes('no-store')) return { kind: 'none', seconds: 0 };
	if (directives.some((directive) => directive === 'no-cache' || directive.startsWith('no-cache=')))
		return { kind: 'revalidate', seconds: 0 };
	const age = directives
		.map((directive) => /^max-age="?(\d+)"?$/.exec(directive)?.[1])
		.find((found) => found !== undefined);
	if (age !== undefined)
		return Number(age) > 0 ? { kind: 'fresh', seconds: Number(age) } : { kind: 'revalidate', seconds: 0 };
	const expires = headerOf(request, 'expires');
	if (expires !== null) {
		const from = Date.parse(headerOf(request, 'date') ?? '');
		const seconds = (Date.parse(expires) - from) / 1000;
		// An Expires that cannot be read means "already expired".
		return seconds > 0 ? { kind: 'fresh', seconds } : { kind: 'revalidate', seconds: 0 };
	}
	return { kind: 'unsaid', seconds: null };
}

const UNITS: [string, number][] = [
	['year', 31_536_000],
	['day', 86_400],
	['hour', 3600],
	['minute', 60],
	['second', 1]
];

/** "1 year", "5 minutes", "not kept", "asked for again each time". */
export function wordLifetime(lifetime: CacheLifetime): string {
	if (lifetime.kind === 'none') return 'not kept';
	if (lifetime.kind === 'revalidate') return 'asked for again each time';
	if (lifetime.kind === 'unsaid') return 'not said';
	const [unit, size] = UNITS.find(([, seconds]) => lifetime.seconds >= seconds) ?? UNITS.at(-1)!;
	const count = Math.round(lifetime.seconds / size);
	return `${count} ${unit}${count === 1 ? '' : 's'}`;
}

/**
 * What a shared cache said of the response: hit, miss, or null. From Cache-Status (RFC 9211) and the usual headers
 * before it.
 */
export function servedFrom(request: Pick<RequestRecord, 'responseHeaders'>): 'hit' | 'miss' | null {
	const said = headerOf(request, 'cache-status') ?? headerOf(request, 'x-cache') ?? headerOf(request, 'x-cache-status');
	if (said) {
		if (/\bhit\b/i.test(said)) return 'hit';
		if (/\b(miss|fwd|bypass|expired|stale)\b/i.test(said)) return 'miss';
	}
	const age = headerOf(request, 'age');
	return age !== null && Number(age) > 0 ? 'hit' : null;
}

/** The headers that the functions here read: all that a list of requests needs to carry. */
export const DELIVERY_HEADERS: ReadonlySet<string> = new Set([
	'content-encoding',
	'cache-control',
	'expires',
	'date',
	'cache-status',
	'x-cache',
	'x-cache-status',
	'age'
]);
