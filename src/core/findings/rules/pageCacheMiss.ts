/** The document was made anew though its headers name a cache (RFC 9211, and the usual headers before it). */
import { servedFrom } from '../../load/requests/delivery';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const pageCacheMiss: FindingRule = ({ document }) => {
	if (!document || servedFrom(document) !== 'miss') return [];
	return [
		{
			rule: 'page-cache-miss',
			resource: addressResource(document.url),
			cost: { ...NO_COST, metric: 'ttfb', delay: null },
			evidence: seenIn(document),
			saving: null,
			limit: { most: 0, unit: 'count' },
			values: { waitMs: document.timing.wait ?? 0 }
		}
	];
};
