/** Made-up evidence for tests of the core. */
import { emptyRecord } from '$core/load/record/emptyRecord';
import type { LoadRecord, RequestRecord } from '$core/load/record/record';
import type { Figures } from '$core/metrics/catalogue';

let next = 1;

export function requestOf(candidate: Partial<RequestRecord> = {}): RequestRecord {
	const url = candidate.url ?? 'https://own.test/';
	return {
		id: String(next++),
		url,
		host: new URL(url).host,
		method: 'GET',
		type: 'other',
		status: 200,
		statusText: 'OK',
		protocol: 'h2',
		mimeType: null,
		priority: null,
		startMs: 0,
		responseMs: null,
		endMs: 10,
		timing: { queue: null, dns: null, connect: null, tls: null, send: null, wait: null, receive: null },
		wireBytes: 0,
		decodedBytes: 0,
		unused: null,
		body: null,
		fromCache: false,
		fromServiceWorker: false,
		during: 'load',
		renderBlocking: null,
		initiatorType: 'parser',
		initiatorUrl: null,
		initiatorChain: [],
		failed: null,
		redirectTo: null,
		requestHeaders: [],
		responseHeaders: [],
		remoteAddress: null,
		connectionId: null,
		...candidate
	};
}

export function recordOf({
	figures = {},
	...known
}: Omit<Partial<LoadRecord>, 'figures'> & { figures?: Partial<Figures> } = {}): LoadRecord {
	const blank = emptyRecord(known.url ?? 'https://own.test/', null, '2026-11-24T10:00:00.000Z', null);
	return { ...blank, ...known, figures: { ...blank.figures, ...figures } };
}
