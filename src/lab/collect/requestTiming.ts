/** A request while it is under way, and its parts in time: the browser's own, with the shaper's look-up. */
// The package does not export its protocol types; a path does.
import type { Protocol } from '../../../node_modules/playwright-core/types/protocol';
import type { RequestRecord } from '$core/load/record/record';
import type { ConnectionLog } from '../shaper/socks';

type Response = Protocol.Network.Response;

/** A request while it is under way; times in the browser's monotonic seconds. */
export interface Draft {
	record: RequestRecord;
	startedAt: number;
	response: Response | null;
	respondedAt: number | null;
	endedAt: number | null;
	bodyWireBytes: number;
	headerWireBytes: number;
	finalWireBytes: number | null;
	frameId: string | null;
	loaderId: string;
}

export function timingOf(draft: Draft, response: Response | null): RequestRecord['timing'] {
	const timing = response?.timing;
	if (!timing) return { queue: null, dns: null, connect: null, tls: null, send: null, wait: null, receive: null };
	const span = (from: number, to: number) => (from >= 0 && to >= from ? round(to - from) : null);
	const head = timing.receiveHeadersStart ?? timing.receiveHeadersEnd;
	const firstStep = [timing.dnsStart, timing.connectStart, timing.sendStart].find((at) => at >= 0) ?? 0;
	return {
		queue: Math.max(0, round((timing.requestTime - draft.startedAt) * 1000 + firstStep)),
		dns: span(timing.dnsStart, timing.dnsEnd),
		connect: span(timing.connectStart, timing.connectEnd),
		tls: span(timing.sslStart, timing.sslEnd),
		send: span(timing.sendStart, timing.sendEnd),
		wait: span(timing.sendEnd, head),
		receive: draft.endedAt === null ? null : Math.max(0, round((draft.endedAt - timing.requestTime) * 1000 - head))
	};
}

export function wireBytesOf(draft: Draft): number {
	return draft.finalWireBytes ?? draft.headerWireBytes + draft.bodyWireBytes;
}

/** A connection that the browser opened within this time of one in the shaper's log, to the same host, is that one. */
const SAME_CONNECTION_WITHIN_MS = 60;

/**
 * Through the proxy the browser sees look-up and handshake as one: the shaper's log tells them apart.
 * A request that opened no connection looked nothing up.
 */
export function withLookUp(
	timing: RequestRecord['timing'],
	draft: Draft,
	clockOffset: number,
	connections: readonly ConnectionLog[]
): RequestRecord['timing'] {
	const raw = draft.response?.timing;
	if (!raw || timing.connect === null) return timing;
	const startedAt = (raw.requestTime + clockOffset) * 1000 + raw.connectStart;
	const host = hostOf(draft.record.url).replace(/:\d+$/, '');
	const near = connections
		.filter((connection) => connection.host === host)
		.map((connection) => ({ connection, off: Math.abs(connection.startedAt - startedAt) }))
		.sort((a, b) => a.off - b.off)[0];
	if (!near || near.off > SAME_CONNECTION_WITHIN_MS) return timing;
	const dns = Math.min(near.connection.dnsMs, timing.connect);
	return { ...timing, dns, connect: round(timing.connect - dns) };
}

export function hostOf(url: string): string {
	try {
		return new URL(url).host;
	} catch {
		return '';
	}
}

export function round(ms: number): number {
	return Math.round(ms * 1000) / 1000;
}
