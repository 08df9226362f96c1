/** What the page's service workers fetch: their requests never pass through the page's own network log. */
import type { BrowserContext, Request } from 'playwright-core';
import type { RequestRecord } from '$core/load/record/record';
import { recordedHeaders } from '$core/load/requests/secretHeaders';

export class WorkerTraffic {
	#requests: { request: Request; ended: Promise<Sizes> }[] = [];

	constructor(context: BrowserContext) {
		context.on('request', (request) => {
			if (!request.serviceWorker() || !/^https?:/.test(request.url())) return;
			this.#requests.push({ request, ended: Promise.resolve(NOTHING) });
		});
		context.on('requestfinished', (request) => {
			const item = this.#requests.find((candidate) => candidate.request === request);
			if (item) item.ended = sizesOf(request);
		});
	}

	/** Call once the page has settled. @param zeroEpochMs the page's time zero */
	async records(zeroEpochMs: number): Promise<RequestRecord[]> {
		return Promise.all(
			this.#requests.map(async ({ request, ended }, i) => recordOf(request, await ended, i, zeroEpochMs))
		);
	}
}

interface Sizes {
	status: number | null;
	statusText: string;
	wireBytes: number | null;
	decodedBytes: number | null;
	mimeType: string | null;
	headers: [string, string][];
}

const NOTHING: Sizes = {
	status: null,
	statusText: '',
	wireBytes: null,
	decodedBytes: null,
	mimeType: null,
	headers: []
};

async function sizesOf(request: Request): Promise<Sizes> {
	try {
		const response = await request.response();
		const { responseBodySize, responseHeadersSize } = await request.sizes();
		const headers = recordedHeaders(Object.entries(response?.headers() ?? {}));
		const mimeType = headers.find(([name]) => name === 'content-type')?.[1].split(';')[0] ?? null;
		const encoded = headers.some(([name]) => name === 'content-encoding');
		return {
			status: response?.status() ?? null,
			statusText: response?.statusText() ?? '',
			wireBytes: responseBodySize + responseHeadersSize,
			decodedBytes: encoded ? null : responseBodySize,
			mimeType,
			headers
		};
	} catch {
		return NOTHING;
	}
}

function recordOf(request: Request, sizes: Sizes, index: number, zeroEpochMs: number): RequestRecord {
	const timing = request.timing();
	const since = (ms: number) => (ms >= 0 ? Math.round((timing.startTime - zeroEpochMs + ms) * 1000) / 1000 : null);
	const span = (from: number, to: number) => (from >= 0 && to >= from ? Math.round((to - from) * 1000) / 1000 : null);
	return {
		id: `worker-${index + 1}`,
		url: request.url().slice(0, 4000),
		host: new URL(request.url()).host,
		method: request.method(),
		type: request.resourceType(),
		status: sizes.status,
		statusText: sizes.statusText,
		protocol: null,
		mimeType: sizes.mimeType,
		priority: null,
		startMs: Math.round((timing.startTime - zeroEpochMs) * 1000) / 1000,
		responseMs: since(timing.responseStart),
		endMs: since(timing.responseEnd),
		timing: {
			queue: null,
			dns: span(timing.domainLookupStart, timing.domainLookupEnd),
			connect: span(timing.connectStart, timing.connectEnd),
			tls: span(timing.secureConnectionStart, timing.connectEnd),
			send: null,
			wait: span(timing.requestStart, timing.responseStart),
			receive: span(timing.responseStart, timing.responseEnd)
		},
		wireBytes: sizes.wireBytes,
		decodedBytes: sizes.decodedBytes,
		unused: null,
		body: null,
		fromCache: false,
		fromServiceWorker: false,
		during: 'load',
		renderBlocking: null,
		initiatorType: 'service worker',
		initiatorUrl: request.serviceWorker()?.url() ?? null,
		initiatorChain: [],
		failed: request.failure()?.errorText ?? null,
		redirectTo: null,
		requestHeaders: [],
		responseHeaders: sizes.headers,
		remoteAddress: null,
		connectionId: null
	};
}
