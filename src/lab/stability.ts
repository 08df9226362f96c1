/** Fetching a page again and again, as the device would, until what is served repeats. */
import { isStable, stabilityOf, type FetchSeen, type StabilityResult } from '$core/load/requests/stability';
import { fetchOnce, openAsking } from './asking';
import type { ShapedNetwork } from './shaper/shaper';
import { wait } from './visit';

const FETCH_EVERY_MS = 1500;

export async function waitUntilStable(
	url: string,
	userAgent: string | undefined,
	line: ShapedNetwork,
	withinMs: number
): Promise<StabilityResult> {
	const began = performance.now();
	const context = await openAsking(userAgent, line);
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
