/** The requests of a load as a list: searched, filtered, ordered, gathered by owner. */
import { DELIVERY_HEADERS } from './delivery';
import type { Owner } from './owners';
import type { RequestRecord } from '../record/record';

export const SPECIAL = {
	blocking: 'Blocks rendering',
	failed: 'Failed or unfinished',
	unused: 'With unused code',
	late: 'Held back or from a step',
	cached: 'From a cache or a service worker'
} as const;
export type Special = keyof typeof SPECIAL;

export const ORDERS = {
	start: 'By start',
	time: 'Longest first',
	wire: 'Most bytes first',
	decoded: 'Most decoded first',
	unused: 'Most unused first'
} as const;
export type Order = keyof typeof ORDERS;

export interface RequestWish {
	search: string;
	/** Owner id; empty for all. */
	owner: string;
	/** Short kind; empty for all. */
	type: string;
	special: Special | '';
	order: Order;
}

export const EVERYTHING: RequestWish = { search: '', owner: '', type: '', special: '', order: 'start' };

const KINDS: Record<string, string> = {
	document: 'html',
	stylesheet: 'css',
	script: 'js',
	image: 'img',
	font: 'font',
	fetch: 'data',
	xhr: 'data',
	ping: 'ping',
	media: 'media',
	manifest: 'data',
	preflight: 'preflight'
};

/** Short text tag of a request's type: html, css, js, img, font, data, ... */
export function kindOf(request: Pick<RequestRecord, 'type'>): string {
	return KINDS[request.type] ?? 'other';
}

/** What a list needs of a request; the rest is asked for when one is opened. */
export type ListedRequest = Pick<
	RequestRecord,
	| 'url'
	| 'host'
	| 'type'
	| 'status'
	| 'mimeType'
	| 'startMs'
	| 'responseMs'
	| 'endMs'
	| 'wireBytes'
	| 'decodedBytes'
	| 'unused'
	| 'body'
	| 'fromCache'
	| 'fromServiceWorker'
	| 'during'
	| 'renderBlocking'
	| 'failed'
	| 'redirectTo'
	| 'responseHeaders'
>;

/** What of requests a list needs: of the headers only those about delivery. */
export function listedRequests(requests: readonly (RequestRecord & OwnedRequest)[]): OwnedRequest[] {
	return requests.map((request) => ({
		url: request.url,
		host: request.host,
		type: request.type,
		status: request.status,
		mimeType: request.mimeType,
		startMs: request.startMs,
		responseMs: request.responseMs,
		endMs: request.endMs,
		wireBytes: request.wireBytes,
		decodedBytes: request.decodedBytes,
		unused: request.unused,
		body: request.body,
		fromCache: request.fromCache,
		fromServiceWorker: request.fromServiceWorker,
		during: request.during,
		renderBlocking: request.renderBlocking,
		failed: request.failed,
		redirectTo: request.redirectTo,
		responseHeaders: request.responseHeaders.filter(([name]) => DELIVERY_HEADERS.has(name.toLowerCase())),
		owner: request.owner,
		number: request.number
	}));
}

export interface OwnedRequest extends ListedRequest {
	owner: Owner;
	/** Place in the load's own order, from 1: the number in links. */
	number: number;
}

export const hasFailed = (request: ListedRequest) =>
	request.failed !== null || request.endMs === null || (request.status ?? 0) >= 400;

const TESTS: Record<Special, (request: ListedRequest) => boolean> = {
	blocking: (request) => request.renderBlocking !== null,
	failed: hasFailed,
	unused: (request) => (request.unused ?? 0) > 0,
	late: (request) => request.during !== 'load',
	cached: (request) => request.fromCache || request.fromServiceWorker
};

const VALUES: Record<Exclude<Order, 'start'>, (request: ListedRequest) => number> = {
	time: (request) => (request.endMs === null ? Infinity : request.endMs - request.startMs),
	wire: (request) => request.wireBytes ?? -1,
	decoded: (request) => request.decodedBytes ?? -1,
	unused: (request) => request.unused ?? -1
};

/** Requests that fit, in the order asked for. */
export function listRequests(requests: readonly OwnedRequest[], wish: RequestWish): OwnedRequest[] {
	const words = wish.search.trim().toLowerCase();
	const fitting = requests.filter(
		(request) =>
			(!words ||
				`${request.url} ${kindOf(request)} ${request.status ?? ''} ${request.failed ?? ''}`
					.toLowerCase()
					.includes(words)) &&
			(!wish.owner || request.owner.id === wish.owner) &&
			(!wish.type || kindOf(request) === wish.type) &&
			(!wish.special || TESTS[wish.special](request))
	);
	if (wish.order === 'start') return fitting;
	const value = VALUES[wish.order];
	return fitting.sort((a, b) => value(b) - value(a) || a.number - b.number);
}

/** Sums by kind of file, heaviest first. */
export function sharesByKind(
	requests: readonly ListedRequest[]
): { kind: string; requests: number; wireBytes: number; decodedBytes: number; unusedBytes: number }[] {
	const kinds = new Map<
		string,
		{ kind: string; requests: number; wireBytes: number; decodedBytes: number; unusedBytes: number }
	>();
	for (const request of requests) {
		const kind = kindOf(request);
		const share = kinds.get(kind) ?? { kind, requests: 0, wireBytes: 0, decodedBytes: 0, unusedBytes: 0 };
		share.requests++;
		share.wireBytes += request.wireBytes ?? 0;
		share.decodedBytes += request.decodedBytes ?? 0;
		share.unusedBytes += request.unused ?? 0;
		kinds.set(kind, share);
	}
	return [...kinds.values()].sort((a, b) => b.wireBytes - a.wireBytes);
}
