/** What a request asks and what an answer is, for every host of the simulated web. */
import type { IncomingHttpHeaders } from 'node:http';

export interface Ask {
	host: string;
	path: string;
	query: URLSearchParams;
	method: string;
	headers: IncomingHttpHeaders;
	https: boolean;
	body: string;
}

export interface Answer {
	status?: number;
	type: string;
	body: string | Buffer;
	headers?: Record<string, string>;
	/** Waiting before the first byte, ms; jitter is in it already. */
	waitMs?: number;
	/** Text is compressed unless this is false. */
	compress?: boolean;
}

/** Takes over the whole exchange, for answers that are no plain answers. */
export type Special = (exchange: Exchange) => void;

export interface Exchange {
	ask: Ask;
	request: import('node:http').IncomingMessage;
	response: import('node:http').ServerResponse;
}

export type HostAnswer = Answer | Special | null;

export const DEVICE = (headers: IncomingHttpHeaders): 'phone' | 'desktop' =>
	/\bMobile\b/.test(String(headers['user-agent'] ?? '')) ? 'phone' : 'desktop';

export const isText = (type: string): boolean => /^(text\/|application\/(json|xml)|image\/svg)/.test(type);
