/** The largest element is told to wait: `loading=lazy`, or put in by a script (HTML, lazy loading). */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource } from '../inspection';
import type { FindingRule } from '../rule';

export const largestLazy: FindingRule = ({ largest, images, record }) => {
	if (!largest) return [];
	const image = images.find(({ url, inView }) => url === largest.url && inView);
	const isScripted = largest.initiatorType === 'script';
	if (!image?.lazy && !isScripted) return [];
	return [
		{
			rule: 'largest-lazy',
			resource: addressResource(largest.url),
			cost: { ...NO_COST, metric: 'lcp', delay: null },
			evidence: { ...NO_EVIDENCE, request: largest.id, selector: record.lcp?.selector ?? null, atMs: largest.startMs },
			saving: null,
			limit: { most: 0, unit: 'count' },
			values: { how: image?.lazy ? 'lazy' : 'script', script: largest.initiatorUrl ?? '' }
		}
	];
};
