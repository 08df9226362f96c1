/** HAR 1.2 of a load. What a load does not know is -1 or left out, as the format asks; never zero. */
import type { Har, Entry, Header } from 'har-format';
import type { LoadRecord, RequestRecord } from '../load/record/record';

const PAGE_ID = 'page_1';

/** @param version of Zafra, for the creator field */
export function harOf(record: LoadRecord, version: string): Har {
	const began = Date.parse(record.startedAt);
	const { figures } = record;
	return {
		log: {
			version: '1.2',
			creator: { name: 'Zafra', version },
			browser: { name: 'Chromium', version: record.environment.browser.replace(/^Chromium /, '') },
			pages: [
				{
					startedDateTime: record.startedAt,
					id: PAGE_ID,
					title: record.page?.title || record.finalUrl,
					pageTimings: {
						onContentLoad: figures.dcl ?? -1,
						onLoad: figures.onload ?? -1,
						...(figures.fcp === null ? {} : { _firstContentfulPaint: figures.fcp }),
						...(figures.lcp === null ? {} : { _largestContentfulPaint: figures.lcp })
					}
				}
			],
			entries: record.requests.map((request) => entryOf(request, began))
		}
	};
}

const harHeaders = (headers: readonly [string, string][]): Header[] =>
	headers.map(([name, value]) => ({ name, value }));
const headerOf = (request: RequestRecord, wanted: string) =>
	request.responseHeaders.find(([name]) => name.toLowerCase() === wanted)?.[1];

function entryOf(request: RequestRecord, began: number): Entry {
	const { timing } = request;
	const parts = [timing.queue, timing.dns, timing.connect, timing.send, timing.wait, timing.receive];
	const sum = parts.reduce<number>((all, part) => all + (part ?? 0), 0);
	const span = request.endMs === null ? sum : Math.max(0, request.endMs - request.startMs);
	// A request that failed or was answered from a cache tells no parts: its whole span is then waiting.
	const untold = parts.every((part) => part === null);
	return {
		pageref: PAGE_ID,
		startedDateTime: new Date(began + request.startMs).toISOString(),
		time: untold ? span : sum,
		request: requestOf(request),
		response: responseOf(request),
		cache: {},
		timings: timingsOf(timing, untold ? span : null),
		...(request.remoteAddress ? { serverIPAddress: request.remoteAddress.replace(/^\[|\]$/g, '') } : {}),
		...(request.connectionId ? { connection: request.connectionId } : {}),
		...extrasOf(request)
	};
}

function requestOf({ method, url, protocol, requestHeaders }: RequestRecord): Entry['request'] {
	return {
		method,
		url,
		httpVersion: protocol ?? 'unknown',
		cookies: [],
		headers: harHeaders(requestHeaders),
		queryString: [...new URL(url).searchParams].map(([name, value]) => ({ name, value })),
		headersSize: -1,
		bodySize: -1
	};
}

function responseOf(request: RequestRecord): Entry['response'] {
	const { wireBytes, decodedBytes, failed } = request;
	const extras = { ...(wireBytes === null ? {} : { _transferSize: wireBytes }), ...(failed ? { _error: failed } : {}) };
	return {
		status: request.status ?? 0,
		statusText: request.statusText,
		httpVersion: request.protocol ?? 'unknown',
		cookies: [],
		headers: harHeaders(request.responseHeaders),
		content: {
			size: decodedBytes ?? -1,
			mimeType: headerOf(request, 'content-type') ?? request.mimeType ?? 'x-unknown'
		},
		redirectURL: request.redirectTo ?? '',
		headersSize: -1,
		bodySize: request.fromCache ? 0 : -1,
		...extras
	};
}

/** @param wholeMs the span of a request that tells no parts; null for one that does */
function timingsOf(timing: RequestRecord['timing'], wholeMs: number | null): Entry['timings'] {
	return {
		blocked: timing.queue ?? -1,
		dns: timing.dns ?? -1,
		connect: timing.connect ?? -1,
		ssl: timing.tls ?? -1,
		send: timing.send ?? 0,
		wait: wholeMs ?? timing.wait ?? 0,
		receive: timing.receive ?? 0
	};
}

/** What browsers write beyond HAR 1.2, under names that begin with an underscore. */
function extrasOf(request: RequestRecord): object {
	const { initiatorType, initiatorUrl, renderBlocking, fromServiceWorker, fromCache } = request;
	return {
		_resourceType: request.type,
		_priority: request.priority,
		_initiator: { type: initiatorType, ...(initiatorUrl ? { url: initiatorUrl } : {}) },
		...(renderBlocking ? { _renderBlocking: renderBlocking } : {}),
		...(fromServiceWorker ? { _fetchedViaServiceWorker: true } : {}),
		...(fromCache ? { _fromCache: 'disk' } : {})
	};
}
