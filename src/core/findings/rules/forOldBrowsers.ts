/** Script with helpers of compilers for browsers of long ago. */
import { sentBytes } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** Known helpers of one file (house). */
const LEAST_HELPERS = 3;

export const forOldBrowsers: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const helpers = factsOf(request)?.helpers ?? [];
		if (helpers.length < LEAST_HELPERS || sentBytes(request) < leastBytes) return [];
		return [
			{
				rule: 'for-old-browsers' as const,
				resource: addressResource(request.url),
				cost: NO_COST,
				evidence: seenIn(request),
				saving: null,
				limit: { most: LEAST_HELPERS - 1, unit: 'count' as const },
				values: { n: helpers.length, names: helpers.slice(0, 4).join(', ') }
			}
		];
	});
