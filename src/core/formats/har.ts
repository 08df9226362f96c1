/** HAR 1.2 of a load. What a load does not know is -1 or left out, as the format asks; never zero. */
import type { Har, Entry } from 'har-format';
import type { LoadRecord, RequestRecord } from '../load/record';

/** @param version of Zafra, for the creator field */
export function harOf(record: LoadRecord, version: string): Har {
	const began = Date.parse(record.startedAt);
	const pageId = 'page_1';
	return {
		log: {
			version: '1.2',
			creator: { name: 'Zafra', version },
			browser: { name: 'Chromium', version: record.environment.browser.replace(/^Chromium /, '') },
			pages: [
				{
					startedDateTime: record.startedAt,
					id: pageId,
					title: record.page?.title || record.finalUrl,
					pageTimings: { onContentLoad: record.figures.dcl ?? -1, onLoad: record.figures.onload ?? -1 }
				}
			],
			entries: record.requests.map((request) => entryOf(request, began, pageId))
		}
	};
}

function entryOf(request: RequestRecord, began: number, pageId: string): Entry {
	const { timing } = request;
	const known = (ms: number | null) => ms ?? -1;
	const total = request.endMs === null ? 0 : Math.max(0, request.endMs - request.startMs);
	const url = new URL(request.url);
	return {
		pageref: pageId,
		startedDateTime: new Date(began + request.startMs).toISOString(),
		time: total,
		request: {
			method: request.method,
			url: request.url,
			httpVersion: request.protocol ?? 'unknown',
			cookies: [],
			headers: request.requestHeaders.map(([name, value]) => ({ name, value })),
			queryString: [...url.searchParams].map(([name, value]) => ({ name, value })),
			headersSize: -1,
			bodySize: -1
		},
		response: {
			status: request.status ?? 0,
			statusText: request.statusText,
			httpVersion: request.protocol ?? 'unknown',
			cookies: [],
			headers: request.responseHeaders.map(([name, value]) => ({ name, value })),
			content: { size: request.decodedBytes, mimeType: request.mimeType ?? 'x-unknown' },
			redirectURL: request.redirectTo ?? '',
			headersSize: -1,
			bodySize: request.fromCache ? 0 : -1,
			...{ _transferSize: request.wireBytes, ...(request.failed ? { _error: request.failed } : {}) }
		},
		cache: {},
		timings: {
			blocked: known(timing.queue),
			dns: known(timing.dns),
			connect: known(timing.connect),
			ssl: known(timing.tls),
			send: timing.send ?? 0,
			wait: timing.wait ?? 0,
			receive: timing.receive ?? 0
		},
		...(request.remoteAddress ? { serverIPAddress: request.remoteAddress.replace(/^\[|\]$/g, '') } : {}),
		...(request.connectionId ? { connection: request.connectionId } : {}),
		...({ _resourceType: request.type, _priority: request.priority } as object)
	};
}
