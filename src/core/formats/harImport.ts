/** A HAR 1.2 file from elsewhere becomes a load with what it holds; what it does not hold stays unknown, never zero. */
import * as v from 'valibot';
import { assembleLoad, NO_EVIDENCE } from '../load/record/assemble';
import { emptyPage, emptyRecord } from '../load/record/emptyRecord';
import { weightsOf } from '../load/requests/weights';
import type { LoadRecord, RequestRecord } from '../load/record/record';
import { recordedHeaders } from '../load/requests/secretHeaders';
import { fullyLoaded } from '../load/vitals/vitals';

const pair = v.object({ name: v.string(), value: v.string() });
const ms = v.optional(v.nullable(v.number()));
const text = v.optional(v.nullable(v.string()));

/** More than any page asks for; what holds more is no record of one load. */
export const MOST_ENTRIES = 20_000;
/** A HAR nests some ten deep. */
const DEEPEST = 60;

const Entry = v.object({
	pageref: text,
	startedDateTime: v.pipe(v.string(), v.check(isPlausibleTime, 'startedDateTime is not a time of a load')),
	time: ms,
	request: v.object({
		method: v.string(),
		url: v.pipe(v.string(), v.check(isUrl, 'is no address')),
		headers: v.optional(v.array(pair), [])
	}),
	response: v.object({
		status: v.number(),
		statusText: v.optional(v.string(), ''),
		httpVersion: text,
		headers: v.optional(v.array(pair), []),
		content: v.optional(v.object({ size: ms, mimeType: text }), {}),
		redirectURL: text,
		headersSize: ms,
		bodySize: ms,
		_transferSize: ms,
		_error: text
	}),
	timings: v.optional(v.object({ blocked: ms, dns: ms, connect: ms, ssl: ms, send: ms, wait: ms, receive: ms }), {}),
	serverIPAddress: text,
	connection: v.optional(v.union([v.string(), v.number()])),
	_resourceType: text,
	_priority: text,
	_fromCache: v.optional(v.unknown()),
	_initiator: v.optional(v.unknown())
});

const HarFile = v.object({
	log: v.object({
		browser: v.optional(v.object({ name: v.string(), version: v.optional(v.string(), '') })),
		creator: v.optional(v.object({ name: v.string(), version: v.optional(v.string(), '') })),
		pages: v.optional(
			v.array(
				v.object({
					id: v.string(),
					startedDateTime: v.string(),
					title: v.optional(v.string(), ''),
					pageTimings: v.optional(v.object({ onContentLoad: ms, onLoad: ms }), {})
				})
			),
			[]
		),
		entries: v.pipe(v.array(Entry), v.minLength(1, 'holds no requests'))
	})
});

type Entry = v.InferOutput<typeof Entry>;

const numberOrNull = (value: number | null | undefined): number | null =>
	value === null || value === undefined || value < 0 ? null : value;

type HarLog = v.InferOutput<typeof HarFile>['log'];

/**
 * The first page of a HAR.
 * @throws Error in words: what is wrong with the file, and where
 */
export function loadOfHar(file: string): LoadRecord {
	const log = parseHar(file);
	const page = log.pages[0];
	const entries = entriesOf(log);
	const began = page ? Date.parse(page.startedDateTime) || Infinity : Infinity;
	const zero = Math.min(Date.parse(entries[0]!.startedDateTime), began);
	const requests = entries.map((entry, i) => requestOf(entry, i, zero));
	const document = requests.find(isAnswer) ?? requests[0]!;
	const begun = emptyRecord(requests[0]!.url, null, new Date(zero).toISOString(), null);
	const maker = log.browser ?? log.creator;
	const notes = ['Imported from a HAR file: paints, shifts, tasks, frames and the conditions of the load are unknown.'];
	const browser = maker ? `${maker.name} ${maker.version}`.trim() : 'unknown';
	const onload = numberOrNull(page?.pageTimings.onLoad);
	const assembled = assembleLoad(
		{ ...begun, source: 'har', environment: { ...begun.environment, browser, notes } },
		{ ...NO_EVIDENCE, requests }
	);
	return {
		...assembled,
		finalUrl: document.url,
		redirects: requests.slice(0, requests.indexOf(document)).flatMap(({ redirectTo, url }) => (redirectTo ? url : [])),
		figures: {
			...assembled.figures,
			// The file does not tell what it does not know: a sum with a hole is unknown, never too small.
			...weightsOf(requests, null),
			dcl: numberOrNull(page?.pageTimings.onContentLoad),
			onload,
			ttfb: document.responseMs,
			full: onload === null ? null : fullyLoaded(requests, onload)
		},
		page: page?.title ? emptyPage(/^https?:/.test(page.title) ? '' : page.title) : null
	};
}

const isAnswer = ({ redirectTo, status }: RequestRecord) => redirectTo === null && status !== null && status < 400;

function parseHar(file: string): HarLog {
	if (depthOf(file) > DEEPEST) throw new Error(`This is not a HAR file: it nests deeper than ${DEEPEST} levels.`);
	const value = parseJson(file);
	const count = (value as { log?: { entries?: unknown[] } } | null)?.log?.entries?.length ?? 0;
	const listed = (n: number) => n.toLocaleString('en-GB');
	if (count > MOST_ENTRIES)
		throw new Error(
			`This HAR holds ${listed(count)} requests, and at most ${listed(MOST_ENTRIES)} are taken: export one page load alone.`
		);
	const result = v.safeParse(HarFile, value);
	if (result.success) return result.output.log;
	const [issue] = result.issues;
	const where = v.getDotPath(issue) ?? 'its top';
	throw new Error(`This is not a HAR 1.2 file: at ${where}: ${issue.message.slice(0, 300)}.`);
}

function parseJson(file: string): unknown {
	try {
		return JSON.parse(file.replace(/^\uFEFF/, ''));
	} catch (error) {
		throw new Error(`This is not a HAR file: it is no JSON (${(error as Error).message}).`, { cause: error });
	}
}

/** Those of the first page, in the order of time; at least one. */
function entriesOf({ entries, pages }: HarLog): Entry[] {
	const page = pages[0];
	const own = entries
		.filter(({ request }) => /^https?:/.test(request.url))
		.filter(({ pageref }) => !page || !pageref || pageref === page.id)
		.sort((a, b) => Date.parse(a.startedDateTime) - Date.parse(b.startedDateTime));
	if (!own.length) throw new Error('This HAR holds no request over HTTP that belongs to its first page.');
	return own;
}

/** Deepest nesting of brackets outside strings, found without building anything. */
function depthOf(json: string): number {
	let deepest = 0;
	let depth = 0;
	let inString = false;
	for (let i = 0; i < json.length && deepest <= DEEPEST; i++) {
		const code = json.charCodeAt(i);
		if (inString) {
			if (code === 92) i++;
			else if (code === 34) inString = false;
		} else if (code === 34) inString = true;
		else if (code === 91 || code === 123) deepest = Math.max(deepest, ++depth);
		else if (code === 93 || code === 125) depth--;
	}
	return deepest;
}

/** The web is younger than this, and no load was made after it. */
function isPlausibleTime(text: string): boolean {
	const year = new Date(Date.parse(text)).getUTCFullYear();
	return year >= 1990 && year < 2100;
}

function isUrl(text: string): boolean {
	try {
		return Boolean(new URL(text));
	} catch {
		return false;
	}
}

const pairsOf = (headers: readonly { name: string; value: string }[]) =>
	headers.map(({ name, value }): [string, string] => [name, value]);

function requestOf(entry: Entry, index: number, zero: number): RequestRecord {
	const { request, response, timings } = entry;
	const startMs = Date.parse(entry.startedDateTime) - zero;
	const time = numberOrNull(entry.time);
	const wait = numberOrNull(timings.wait);
	const before = [timings.blocked, timings.dns, timings.connect, timings.send].reduce<number>(
		(sum, part) => sum + (numberOrNull(part) ?? 0),
		0
	);
	const headers = numberOrNull(response.headersSize);
	const body = numberOrNull(response.bodySize);
	const mimeType = response.content.mimeType?.split(';')[0] || null;
	return {
		id: String(index + 1),
		url: request.url.slice(0, 4000),
		host: new URL(request.url).host,
		method: request.method,
		type: typeOf(entry._resourceType ?? null, mimeType, index),
		status: response.status > 0 ? response.status : null,
		statusText: response.statusText,
		protocol: response.httpVersion && response.httpVersion !== 'unknown' ? response.httpVersion : null,
		mimeType,
		priority: entry._priority ?? null,
		startMs,
		responseMs: wait === null ? null : startMs + before + wait,
		endMs: time === null ? null : startMs + time,
		timing: {
			queue: numberOrNull(timings.blocked),
			dns: numberOrNull(timings.dns),
			connect: numberOrNull(timings.connect),
			tls: numberOrNull(timings.ssl),
			send: numberOrNull(timings.send),
			wait,
			receive: numberOrNull(timings.receive)
		},
		wireBytes: numberOrNull(response._transferSize) ?? (headers !== null && body !== null ? headers + body : null),
		decodedBytes: numberOrNull(response.content.size),
		unused: null,
		body: null,
		fromCache: Boolean(entry._fromCache),
		fromServiceWorker: false,
		during: 'load',
		renderBlocking: null,
		initiatorType: 'unknown',
		initiatorUrl: null,
		initiatorChain: [],
		failed: response._error ?? null,
		redirectTo: response.redirectURL ? response.redirectURL : null,
		requestHeaders: recordedHeaders(pairsOf(request.headers)),
		responseHeaders: recordedHeaders(pairsOf(response.headers)),
		remoteAddress: entry.serverIPAddress || null,
		connectionId: entry.connection === undefined ? null : String(entry.connection)
	};
}

function typeOf(named: string | null, mimeType: string | null, index: number): string {
	if (named) return named.toLowerCase();
	if (index === 0) return 'document';
	const kinds: [RegExp, string][] = [
		[/html/, 'document'],
		[/css/, 'stylesheet'],
		[/javascript|ecmascript/, 'script'],
		[/^image\//, 'image'],
		[/font|woff/, 'font'],
		[/^(video|audio)\//, 'media'],
		[/json|xml/, 'fetch']
	];
	return kinds.find(([pattern]) => pattern.test(mimeType ?? ''))?.[1] ?? 'other';
}
