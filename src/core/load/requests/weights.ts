/** What a page weighs: of what went to the network until it had settled. */
import type { RequestRecord } from '../record/record';

/** Went to the network while the page loaded. */
function isSent({ fromCache, fromServiceWorker, during }: RequestRecord): boolean {
	return !fromCache && !fromServiceWorker && during === 'load';
}

/**
 * Bytes on the wire and after decoding, and how many requests.
 * @param unknown what a request of unknown size counts as: 0, or null, which makes the sum unknown
 */
export function weightsOf(
	requests: readonly RequestRecord[],
	unknown: 0 | null
): { wire: number | null; decoded: number | null; requests: number } {
	const sent = requests.filter(isSent);
	const total = (field: 'wireBytes' | 'decodedBytes') =>
		sent.reduce<number | null>((sum, request) => {
			const size = request[field] ?? unknown;
			return sum === null || size === null ? null : sum + size;
		}, 0);
	return { wire: total('wireBytes'), decoded: total('decodedBytes'), requests: sent.length };
}
