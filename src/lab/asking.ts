/** Asking a site for pages as a device would, without opening them: headers, size and time. */
import { request, type APIRequestContext } from 'playwright-core';
import { servedFrom } from '$core/load/requests/delivery';
import { failedFetch, type FetchSeen } from '$core/load/requests/stability';
import type { ShapedNetwork } from './shaper/shaper';

const FETCH_WITHIN_MS = 20_000;

export function openAsking(userAgent: string | undefined, line: ShapedNetwork): Promise<APIRequestContext> {
	return request.newContext({
		proxy: { server: `socks5://127.0.0.1:${line.port}` },
		// Only sizes and headers are compared; the load itself checks the certificate.
		ignoreHTTPSErrors: true,
		...(userAgent ? { userAgent } : {})
	});
}

/** Nothing is thrown. @param began `performance.now()` when the waiting began */
export async function fetchOnce(context: APIRequestContext, url: string, began: number): Promise<FetchSeen> {
	const asked = performance.now();
	try {
		const response = await context.get(url, {
			timeout: FETCH_WITHIN_MS,
			headers: { accept: 'text/html,application/xhtml+xml' }
		});
		const headers = response.headers();
		const size = (await response.body()).length;
		const now = performance.now();
		return {
			atMs: now - began,
			tookMs: Math.round(now - asked),
			status: response.status(),
			bytes: size,
			etag: headers.etag ?? null,
			lastModified: headers['last-modified'] ?? null,
			cacheControl: headers['cache-control'] ?? null,
			cache: servedFrom({ responseHeaders: Object.entries(headers) }),
			problem: null
		};
	} catch (error) {
		const problem = (error as Error).message
			.split('\n')[0]!
			.replace(/^apiRequestContext\.get: /, '')
			.slice(0, 200);
		return failedFetch(problem, performance.now() - began);
	}
}
