/** A plain client for the simulated web: any host, HTTP or HTTPS with its real certificate chain. */
import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { gunzipSync } from 'node:zlib';
import type { IncomingHttpHeaders } from 'node:http';
import type { RunningWorld } from '../support/world';

export interface Reply {
	status: number;
	headers: IncomingHttpHeaders;
	wire: Buffer;
	text: string;
}

export interface AskOptions {
	method?: string;
	headers?: Record<string, string>;
	body?: string;
}

export const PHONE_AGENT = 'Mozilla/5.0 (Linux; Android 14) Mobile Safari/537.36';

export function clientOf(web: RunningWorld, authority: string) {
	return (url: string, { method = 'GET', headers = {}, body }: AskOptions = {}): Promise<Reply> => {
		const { protocol, hostname, pathname, search } = new URL(url);
		const common = {
			host: '127.0.0.1',
			path: pathname + search,
			method,
			headers: { host: hostname, 'accept-encoding': 'gzip', ...headers }
		};
		return new Promise((resolve, reject) => {
			const asked =
				protocol === 'https:'
					? httpsRequest({ ...common, port: web.tlsPort, servername: hostname, ca: authority, agent: false })
					: httpRequest({ ...common, port: web.port, agent: false });
			asked.on('response', async (response) => {
				const chunks: Buffer[] = [];
				try {
					for await (const chunk of response) chunks.push(chunk as Buffer);
				} catch (error) {
					return reject(error as Error);
				}
				const wire = Buffer.concat(chunks);
				const plain = response.headers['content-encoding'] === 'gzip' && wire.length > 0 ? gunzipSync(wire) : wire;
				resolve({ status: response.statusCode!, headers: response.headers, wire, text: plain.toString('utf8') });
			});
			asked.on('error', reject);
			asked.end(body);
		});
	};
}
