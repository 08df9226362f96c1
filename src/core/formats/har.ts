/** HAR 1.2 of a load. What a load does not know is -1 or left out, as the format asks; never zero. */
import type { Har, Entry, Header } from 'har-format';
import type { LoadRecord, RequestRecord } from '../load/record';

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

const pairs = (headers: readonly [string, string][]): Header[] => headers.map(([name, value]) => ({ name, value }));
const headerOf = (request: RequestRecord, wanted: string) =>
	request.responseHeaders.find(([name]) => name.toLowerCase() === wanted)?.[1];

function entryOf(request: RequestRecord, began: number): Entry {
	const { timing } = request;
	const known = (ms: number | null) => ms ?? -1;
	const url = new URL(request.url);
	const parts = [timing.queue, timing.dns, timing.connect, timing.send, timing.wait, timing.receive];
	const sum = parts.reduce<number>((all, part) => all + (part ?? 0), 0);
	const span = request.endMs === null ? sum : Math.max(0, request.endMs - request.startMs);
	// A request that failed or was answered from a cache tells no parts: its whole span is then waiting.
	const untold = parts.every((part) => part === null);
	const { wireBytes, decodedBytes } = request;
	return {
		pageref: PAGE_ID,
		startedDateTime: new Date(began + request.startMs).toISOString(),
		time: untold ? span : sum,
		request: {
			method: request.method,
			url: request.url,
			httpVersion: request.protocol ?? 'unknown',
			cookies: [],
			headers: pairs(request.requestHeaders),
			queryString: [...url.searchParams].map(([name, value]) => ({ name, value })),
			headersSize: -1,
			bodySize: -1
		},
		response: {
			status: request.status ?? 0,
			statusText: request.statusText,
			httpVersion: request.protocol ?? 'unknown',
			cookies: [],
			headers: pairs(request.responseHeaders),
			content: {
				size: decodedBytes ?? -1,
				mimeType: headerOf(request, 'content-type') ?? request.mimeType ?? 'x-unknown'
			},
			redirectURL: request.redirectTo ?? '',
			headersSize: -1,
			bodySize: request.fromCache ? 0 : -1,
			...{
				...(wireBytes === null ? {} : { _transferSize: wireBytes }),
				...(request.failed ? { _error: request.failed } : {})
			}
		},
		cache: {},
		timings: {
			blocked: known(timing.queue),
			dns: known(timing.dns),
			connect: known(timing.connect),
			ssl: known(timing.tls),
			send: timing.send ?? 0,
			wait: untold ? span : (timing.wait ?? 0),
			receive: timing.receive ?? 0
		},
		...(request.remoteAddress ? { serverIPAddress: request.remoteAddress.replace(/^\[|\]$/g, '') } : {}),
		...(request.connectionId ? { connection: request.connectionId } : {}),
		...({
			_resourceType: request.type,
			_priority: request.priority,
			_initiator: { type: request.initiatorType, ...(request.initiatorUrl ? { url: request.initiatorUrl } : {}) },
			...(request.renderBlocking ? { _renderBlocking: request.renderBlocking } : {}),
			...(request.fromServiceWorker ? { _fetchedViaServiceWorker: true } : {}),
			...(request.fromCache ? { _fromCache: 'disk' } : {})
		} as object)
	};
}
