/** Requests of one load, from the browser's network events. */
import type { CDPSession } from 'playwright-core';
// The package does not export its protocol types; a path does.
import type { Protocol } from '../../../node_modules/playwright-core/types/protocol';
import type { RequestPhase, RequestRecord } from '$core/load/record/record';
import { recordedHeaders } from '$core/load/requests/secretHeaders';
import type { ConnectionLog } from '../shaper/socks';
import { timingOf, wireBytesOf, withLookUp, hostOf, round, type Draft } from './requestTiming';

type Net<Name extends keyof Protocol.Events> = Protocol.Events[Name];
type Response = Protocol.Network.Response;

/** Kinds that may stay open for ever and never keep a page from settling. */
const ENDLESS = new Set(['eventsource', 'websocket', 'ping']);

export class NetworkCollector {
	#drafts: Draft[] = [];
	#open = new Map<string, Draft>();
	#waiting = new Set<string>();
	/** Of requests that are not told yet. */
	#sizesBefore = new Map<string, { sentBytes: number; cookieBytes: number }>();
	#zeroAt: number | null = null;
	/** Epoch seconds minus monotonic seconds. */
	#clockOffset = 0;
	#redirectCount = 0;
	/** What is going on: written on each request that starts. */
	phase: RequestPhase = 'load';
	/** performance.now() of the lab when the network last did anything that matters for settling. */
	lastActivityAt = performance.now();

	constructor(
		session: CDPSession,
		private readonly mainFrameId: () => string,
		/** Names, in small letters, of headers whose values stay out of the record. */
		private readonly secretHeaders: readonly string[] = []
	) {
		session.on('Network.requestWillBeSent', (event) => this.#sent(event));
		session.on('Network.requestWillBeSentExtraInfo', (event) => this.#sentWith(event));
		session.on('Network.responseReceived', (event) => this.#responded(event));
		session.on('Network.dataReceived', (event) => this.#data(event));
		session.on('Network.loadingFinished', (event) => this.#finished(event));
		session.on('Network.loadingFailed', (event) => this.#failed(event));
		session.on('Network.requestServedFromCache', ({ requestId }) => {
			const draft = this.#open.get(requestId);
			if (draft) draft.record.fromCache = true;
		});
	}

	/** How many requests are under way that the page waits for. */
	get waiting(): number {
		return this.#waiting.size;
	}

	/** Epoch ms of the first document request, before the page's own clock is known. */
	get firstRequestEpochMs(): number | null {
		return this.#zeroAt === null ? null : (this.#zeroAt + this.#clockOffset) * 1000;
	}

	/** The newest response to the main frame's document. */
	get documentResponse(): Response | null {
		return this.#documents().at(-1)?.response ?? null;
	}

	/** Address of the newest document that the main frame asked for, and why it did not come; null where it did. */
	get newestDocument(): { url: string; error: string | null } | null {
		const draft = this.#drafts.findLast(
			({ record, frameId }) => record.type === 'document' && frameId === this.mainFrameId()
		);
		return draft ? { url: draft.record.url, error: draft.record.failed } : null;
	}

	/** Addresses that the document was redirected through, in order. */
	get redirects(): string[] {
		return this.#documents()
			.filter((draft) => draft.record.redirectTo)
			.map((draft) => draft.record.url);
	}

	/** Requests that began since a moment (epoch ms): how many, how heavy, and when the last one ended. */
	since(epochMs: number): { requests: number; wireBytes: number; lastEndEpochMs: number | null } {
		const drafts = this.#drafts.filter((draft) => this.#epochOf(draft.startedAt) >= epochMs - 1);
		const ends = drafts.flatMap((draft) => (draft.endedAt === null ? [] : [this.#epochOf(draft.endedAt)]));
		return {
			requests: drafts.length,
			wireBytes: drafts.reduce((sum, draft) => sum + (draft.record.fromCache ? 0 : wireBytesOf(draft)), 0),
			lastEndEpochMs: ends.length ? Math.max(...ends) : null
		};
	}

	/** Ids of finished answers whose bodies can be read, in order. */
	get finished(): { id: string; url: string; type: string; mimeType: string | null; decodedBytes: number }[] {
		return this.#drafts
			.filter((draft) => draft.endedAt !== null && draft.response && !draft.record.failed && !draft.record.redirectTo)
			.map(({ record }) => ({
				id: record.id,
				url: record.url,
				type: record.type,
				mimeType: record.mimeType,
				decodedBytes: record.decodedBytes ?? 0
			}));
	}

	#epochOf(monotonic: number): number {
		return (monotonic + this.#clockOffset) * 1000;
	}

	/** All requests in order of start. @param zeroEpochMs the page's time zero in epoch ms */
	records(zeroEpochMs: number, connections: readonly ConnectionLog[] = []): RequestRecord[] {
		const since = (monotonic: number | null) =>
			monotonic === null ? null : round((monotonic + this.#clockOffset) * 1000 - zeroEpochMs);
		return this.#drafts.map((draft) => {
			const { record, response } = draft;
			return {
				...record,
				startMs: since(draft.startedAt)!,
				responseMs: since(draft.respondedAt),
				endMs: since(draft.endedAt),
				wireBytes: record.fromCache ? 0 : wireBytesOf(draft),
				timing: withLookUp(timingOf(draft, response), draft, this.#clockOffset, connections)
			};
		});
	}

	#documents(): Draft[] {
		return this.#drafts.filter(
			(draft) => draft.record.type === 'document' && draft.frameId === this.mainFrameId() && draft.response
		);
	}

	#touch(type: string): void {
		if (!ENDLESS.has(type)) this.lastActivityAt = performance.now();
	}

	#sent(event: Net<'Network.requestWillBeSent'>): void {
		const { request, requestId } = event;
		if (!/^https?:/.test(request.url) || isTabIcon(event)) return;
		if (this.#zeroAt === null) {
			this.#zeroAt = event.timestamp;
			this.#clockOffset = event.wallTime - event.timestamp;
		}
		if (event.redirectResponse) this.#redirected(event);
		const type = (event.type ?? 'Other').toLowerCase();
		const draft: Draft = {
			record: {
				id: requestId,
				url: request.url.slice(0, 4000),
				host: hostOf(request.url),
				method: request.method,
				type,
				status: null,
				statusText: '',
				protocol: null,
				mimeType: null,
				priority: request.initialPriority,
				startMs: 0,
				responseMs: null,
				endMs: null,
				timing: { queue: null, dns: null, connect: null, tls: null, send: null, wait: null, receive: null },
				wireBytes: 0,
				decodedBytes: 0,
				unused: null,
				body: null,
				fromCache: false,
				fromServiceWorker: false,
				during: this.phase,
				renderBlocking: null,
				initiatorType: event.initiator.type,
				initiatorUrl: event.initiator.url ?? event.initiator.stack?.callFrames[0]?.url ?? null,
				initiatorChain: chainOf(event.initiator.stack),
				failed: null,
				redirectTo: null,
				requestHeaders: recordedHeaders(Object.entries(request.headers), this.secretHeaders),
				responseHeaders: [],
				remoteAddress: null,
				connectionId: null
			},
			startedAt: event.timestamp,
			response: null,
			respondedAt: null,
			endedAt: null,
			bodyWireBytes: 0,
			headerWireBytes: 0,
			finalWireBytes: null,
			frameId: event.frameId ?? null,
			loaderId: event.loaderId
		};
		Object.assign(draft.record, this.#sizesBefore.get(requestId));
		this.#sizesBefore.delete(requestId);
		this.#drafts.push(draft);
		this.#open.set(requestId, draft);
		if (!ENDLESS.has(type)) this.#waiting.add(requestId);
		this.#touch(type);
	}

	/** May come before the request itself is told, or when it is long over. */
	#sentWith({ requestId, headers }: Net<'Network.requestWillBeSentExtraInfo'>): void {
		const sizes = {
			sentBytes: Object.entries(headers).reduce((sum, [name, value]) => sum + name.length + value.length + 4, 0),
			cookieBytes: Object.entries(headers).find(([name]) => name.toLowerCase() === 'cookie')?.[1].length ?? 0
		};
		const draft = this.#drafts.find(({ record }) => record.id === requestId && record.sentBytes === undefined);
		if (draft) Object.assign(draft.record, sizes);
		else this.#sizesBefore.set(requestId, sizes);
	}

	#redirected(event: Net<'Network.requestWillBeSent'>): void {
		const draft = this.#open.get(event.requestId);
		if (!draft || !event.redirectResponse) return;
		draft.record.id = `${event.requestId}:${++this.#redirectCount}`;
		draft.record.redirectTo = event.request.url;
		this.#describe(draft, event.redirectResponse, event.timestamp);
		draft.endedAt = event.timestamp;
		draft.finalWireBytes = event.redirectResponse.encodedDataLength;
	}

	#responded({ requestId, response, timestamp, type }: Net<'Network.responseReceived'>): void {
		const draft = this.#open.get(requestId);
		if (!draft) return;
		draft.record.type = type.toLowerCase();
		this.#describe(draft, response, timestamp);
		this.#touch(draft.record.type);
	}

	#describe(draft: Draft, response: Response, timestamp: number): void {
		draft.response = response;
		const head = response.timing?.receiveHeadersStart ?? response.timing?.receiveHeadersEnd;
		draft.respondedAt =
			response.timing && head !== undefined && head >= 0 ? response.timing.requestTime + head / 1000 : timestamp;
		draft.headerWireBytes = response.encodedDataLength;
		Object.assign(draft.record, {
			status: response.status,
			statusText: response.statusText,
			protocol: response.protocol ?? null,
			mimeType: response.mimeType,
			fromCache: draft.record.fromCache || Boolean(response.fromDiskCache || response.fromPrefetchCache),
			fromServiceWorker: Boolean(response.fromServiceWorker),
			responseHeaders: recordedHeaders(Object.entries(response.headers)),
			remoteAddress: response.remoteIPAddress ?? null,
			connectionId: String(response.connectionId)
		} satisfies Partial<RequestRecord>);
	}

	#data(event: Net<'Network.dataReceived'>): void {
		const draft = this.#open.get(event.requestId);
		if (!draft) return;
		draft.record.decodedBytes = (draft.record.decodedBytes ?? 0) + event.dataLength;
		draft.bodyWireBytes += event.encodedDataLength;
		this.#touch(draft.record.type);
	}

	#finished(event: Net<'Network.loadingFinished'>): void {
		const draft = this.#open.get(event.requestId);
		if (!draft) return;
		draft.endedAt = event.timestamp;
		draft.finalWireBytes = event.encodedDataLength;
		this.#close(event.requestId, draft);
	}

	#failed(event: Net<'Network.loadingFailed'>): void {
		const draft = this.#open.get(event.requestId);
		if (!draft) return;
		draft.endedAt = event.timestamp;
		draft.record.failed = event.blockedReason ? `blocked: ${event.blockedReason}` : event.errorText || 'failed';
		this.#close(event.requestId, draft);
	}

	#close(requestId: string, draft: Draft): void {
		this.#open.delete(requestId);
		this.#waiting.delete(requestId);
		this.#touch(draft.record.type);
	}
}

/**
 * The icon for the tab: the browser asks for it by itself, and only the first time it meets a host in its life.
 * Counted,
 * it would make the first load of a trial unlike all others.
 */
function isTabIcon({ type, initiator, request }: Net<'Network.requestWillBeSent'>): boolean {
	return type === 'Other' && initiator.type === 'other' && /\.(ico|png|svg)$/.test(new URL(request.url).pathname);
}

/** Scripts on the way to a request, nearest first, each once. */
function chainOf(stack: Protocol.Runtime.StackTrace | undefined): string[] {
	const urls: string[] = [];
	for (let at = stack; at && urls.length < 8; at = at.parent)
		for (const { url } of at.callFrames)
			if (url && !urls.includes(url) && urls.length < 8) urls.push(url.slice(0, 1000));
	return urls;
}
