/** Fonts of the text from another host, before the first paint (practice). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const fontFar: FindingRule = ({ requests, record, ownerOf }) => {
	const { fcp, lcp } = record.figures;
	if (fcp === null) return [];
	// Text that is the largest element waits for its font longer than the first paint does.
	const until = record.lcp?.url ? fcp : Math.max(fcp, lcp ?? 0);
	return requests
		.filter(({ type, host, startMs }) => type === 'font' && ownerOf(host).kind === 'third-party' && startMs <= until)
		.map((request) => ({
			rule: 'font-far' as const,
			resource: addressResource(request.url),
			cost: { ...NO_COST, bytes: request.wireBytes },
			evidence: seenIn(request),
			saving: null,
			limit: { most: 0, unit: 'count' as const },
			values: { host: request.host, connectMs: (request.timing.dns ?? 0) + (request.timing.connect ?? 0) }
		}));
};
