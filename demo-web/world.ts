/** What the simulated web answers: hosts, and what each serves. */
import type { IncomingHttpHeaders } from 'node:http';
import type { PictureMaker } from './make/pictures';
import type { ServerTime } from './make/timing';

export interface WorldRequest {
	host: string;
	path: string;
	query: URLSearchParams;
	headers: IncomingHttpHeaders;
	scheme: 'http' | 'https';
}

export interface WorldResponse {
	status?: number;
	type: string;
	body: string | Buffer;
	headers?: Record<string, string>;
	/** Waiting before the first byte. */
	serverTime?: ServerTime;
	/** Text is compressed unless this is false. */
	compress?: boolean;
}

export interface Host {
	name: string;
	title: string;
	respond(request: WorldRequest): Promise<WorldResponse | null> | WorldResponse | null;
}

export interface Workshop {
	pictures: PictureMaker;
}

export const FILE_TIME: ServerTime = { middleMs: 9, spread: 0.25 };
export const LONG_CACHE = { 'cache-control': 'public, max-age=31536000, immutable' };
