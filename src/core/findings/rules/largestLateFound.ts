/** The largest element's resource was asked for late (web.dev, parts of LCP: resource load delay). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** Where the line is not known (house). */
const USUAL_ROUND_TRIP_MS = 100;

export const largestLateFound: FindingRule = ({ largest, document, roundTripMs }) => {
	if (!largest || !document || document.responseMs === null) return [];
	const lateMs = largest.startMs - document.responseMs;
	const most = roundTripMs ?? USUAL_ROUND_TRIP_MS;
	if (lateMs <= most) return [];
	return [
		{
			rule: 'largest-late-found',
			resource: addressResource(largest.url),
			cost: { ...NO_COST, metric: 'lcp', delay: lateMs - most },
			evidence: seenIn(largest),
			saving: null,
			limit: { most, unit: 'ms' },
			values: { lateMs, by: largest.initiatorUrl ?? '' }
		}
	];
};
