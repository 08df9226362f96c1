/** Emptying a site's cache before a cold load. */
import { request } from 'playwright-core';
import { failure } from './failure';
import type { ShapedNetwork } from './shaper/shaper';

const PURGE_WITHIN_MS = 20_000;

/** @throws LoadFailure when the call does not go well: what would be loaded then is not cold */
export async function purgeCache({ method, url }: { method: string; url: string }, line: ShapedNetwork): Promise<void> {
	const context = await request.newContext({
		proxy: { server: `socks5://127.0.0.1:${line.port}` },
		ignoreHTTPSErrors: true
	});
	try {
		const answer = await context.fetch(url, { method, timeout: PURGE_WITHIN_MS });
		if (!answer.ok())
			throw failure('internal', `the cache could not be emptied: ${method} ${url} answered ${answer.status()}`);
	} catch (error) {
		if (error instanceof Error && 'reason' in error) throw error;
		throw failure('internal', `the cache could not be emptied: ${(error as Error).message.split('\n')[0]}`);
	} finally {
		await context.dispose();
	}
}
