/** The largest element's picture, asked for in time, waited behind the bytes of others (Fetch, request priority). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** As many bytes of others as its own in its time (house). */
const OTHERS_TIMES = 1;

export const largestWithoutPriority: FindingRule = ({ largest, requests, document, roundTripMs }) => {
	if (!largest?.endMs || largest.type !== 'image' || !document) return [];
	if (largest.priority === 'High' || largest.priority === 'VeryHigh') return [];
	const { startMs, endMs } = largest;
	if (roundTripMs !== null && startMs - (document.responseMs ?? 0) > roundTripMs) return [];
	const others = requests.filter(
		(request) =>
			request !== largest &&
			request !== document &&
			request.renderBlocking !== 'blocking' &&
			request.endMs !== null &&
			request.endMs > startMs &&
			request.endMs <= endMs
	);
	const bytes = others.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0);
	if (bytes < OTHERS_TIMES * (largest.wireBytes ?? Infinity)) return [];
	return [
		{
			rule: 'largest-without-priority',
			resource: addressResource(largest.url),
			cost: { ...NO_COST, bytes, metric: 'lcp', delay: null },
			evidence: seenIn(largest),
			saving: null,
			limit: { most: largest.wireBytes ?? 0, unit: 'bytes' },
			values: { bytes, n: others.length, priority: largest.priority ?? '' }
		}
	];
};
