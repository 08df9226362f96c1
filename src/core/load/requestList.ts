/** The requests of a load as a list: searched, filtered, ordered, gathered by owner. */
import { csvOf } from '../formats/csv';
import { DELIVERY_HEADERS } from './delivery';
import type { Owner } from './owners';
import type { RequestRecord } from './record';

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

/**
 * Thousands of requests as compact text: rows of values without names, of the headers only those about delivery.
 * @param owners in any order; each request names its own by the place in it
 */
export function packRequests(requests: readonly (RequestRecord & OwnedRequest)[], owners: readonly Owner[]): string {
	const places = new Map(owners.map(({ id }, place) => [id, place]));
	return JSON.stringify(
		requests.map((one) => [
			one.url,
			one.type,
			one.status,
			one.mimeType,
			one.startMs,
			one.responseMs,
			one.endMs,
			one.wireBytes,
			one.decodedBytes,
			one.unused,
			one.body,
			Number(one.fromCache),
			Number(one.fromServiceWorker),
			one.during,
			one.renderBlocking,
			one.failed,
			one.redirectTo,
			one.responseHeaders.filter(([name]) => DELIVERY_HEADERS.has(name.toLowerCase())),
			places.get(one.owner.id)
		])
	);
}

type Row = [
	url: string,
	type: string,
	status: number | null,
	mimeType: string | null,
	startMs: number,
	responseMs: number | null,
	endMs: number | null,
	wireBytes: number | null,
	decodedBytes: number | null,
	unused: number | null,
	body: RequestRecord['body'],
	fromCache: number,
	fromServiceWorker: number,
	during: RequestRecord['during'],
	renderBlocking: string | null,
	failed: string | null,
	redirectTo: string | null,
	responseHeaders: [string, string][],
	owner: number
];

/** The requests of `packRequests`. @param owners in the same order as when they were packed */
export function unpackRequests(packed: string, owners: readonly Owner[]): OwnedRequest[] {
	// Written out: a literal of a fixed shape is made ten times faster than an object of entries.
	return (JSON.parse(packed) as Row[]).map((row, i) => ({
		url: row[0],
		host: hostOf(row[0]),
		type: row[1],
		status: row[2],
		mimeType: row[3],
		startMs: row[4],
		responseMs: row[5],
		endMs: row[6],
		wireBytes: row[7],
		decodedBytes: row[8],
		unused: row[9],
		body: row[10],
		fromCache: row[11] === 1,
		fromServiceWorker: row[12] === 1,
		during: row[13],
		renderBlocking: row[14],
		failed: row[15],
		redirectTo: row[16],
		responseHeaders: row[17],
		owner: owners[row[18]]!,
		number: i + 1
	}));
}

const hostOf = (url: string) => /^https?:\/\/(?:[^/@]*@)?([^/?#]+)/.exec(url)?.[1]?.toLowerCase() ?? '';

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

/** One row a request; times in ms, sizes in bytes, empty for what is not known. */
export function requestsCsv(requests: readonly (RequestRecord & OwnedRequest)[]): string {
	const head = [
		'number',
		'url',
		'owner',
		'type',
		'status',
		'protocol',
		'priority',
		'start',
		'first_byte',
		'end',
		'queue',
		'dns',
		'connect',
		'tls',
		'send',
		'wait',
		'receive',
		'wire',
		'decoded',
		'unused',
		'blocking',
		'from_cache',
		'from_service_worker',
		'during',
		'failed',
		'asked_for_by'
	];
	const rows = requests.map((one) => [
		one.number,
		one.url,
		one.owner.name,
		one.type,
		one.status,
		one.protocol,
		one.priority,
		one.startMs,
		one.responseMs,
		one.endMs,
		one.timing.queue,
		one.timing.dns,
		one.timing.connect,
		one.timing.tls,
		one.timing.send,
		one.timing.wait,
		one.timing.receive,
		one.wireBytes,
		one.decodedBytes,
		one.unused,
		one.renderBlocking,
		one.fromCache,
		one.fromServiceWorker,
		one.during,
		one.failed,
		one.initiatorUrl ?? one.initiatorType
	]);
	return csvOf(head, rows);
}
