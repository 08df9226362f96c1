/** The document stands behind redirects of its own site (RFC 9110, section 15.4). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const redirects: FindingRule = ({ asked, ownerOf, document }) => {
	const hops = asked.filter(
		({ type, redirectTo, host }) => type === 'document' && redirectTo !== null && ownerOf(host).kind === 'own'
	);
	const [first] = hops;
	if (!first || !document) return [];
	const delay = document.startMs - first.startMs;
	return [
		{
			rule: 'redirects',
			resource: addressResource(first.url),
			cost: { ...NO_COST, metric: 'ttfb', delay: delay > 0 ? delay : null },
			evidence: seenIn(first),
			saving: null,
			limit: { most: 0, unit: 'count' },
			values: { n: hops.length, to: document.url }
		}
	];
};
