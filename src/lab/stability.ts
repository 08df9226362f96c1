/** Fetching a page again and again, as the device would, until what is served repeats. */
import { request } from 'playwright-core';
import { servedFrom } from '$core/load/requests/delivery';
import {
	failedFetch,
	isStable,
	stabilityOf,
	type FetchSeen,
	type StabilityResult
} from '$core/load/requests/stability';
import type { ShapedNetwork } from './shaper/shaper';
import { wait } from './visit';

const FETCH_EVERY_MS = 1500;
const FETCH_WITHIN_MS = 20_000;

export async function waitUntilStable(
	url: string,
	userAgent: string | undefined,
	line: ShapedNetwork,
	withinMs: number
): Promise<StabilityResult> {
	const began = performance.now();
	const context = await request.newContext({
		proxy: { server: `socks5://127.0.0.1:${line.port}` },
		// Only sizes and headers are compared; the load itself checks the certificate.
		ignoreHTTPSErrors: true,
		...(userAgent ? { userAgent } : {})
	});
	const fetches: FetchSeen[] = [];
	try {
		do {
			if (fetches.length) await wait(FETCH_EVERY_MS);
			fetches.push(await fetchOnce(context, url, began));
		} while (!isStable(fetches) && performance.now() - began + FETCH_EVERY_MS < withinMs);
	} finally {
		await context.dispose();
	}
	return stabilityOf(fetches);
}

async function fetchOnce(
	context: Awaited<ReturnType<typeof request.newContext>>,
	url: string,
	began: number
): Promise<FetchSeen> {
	try {
		const response = await context.get(url, {
			timeout: FETCH_WITHIN_MS,
			headers: { accept: 'text/html,application/xhtml+xml' }
		});
		const headers = response.headers();
		const size = (await response.body()).length;
		return {
			atMs: performance.now() - began,
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
