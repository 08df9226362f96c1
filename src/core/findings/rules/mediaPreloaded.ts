/** Video or sound fetched before anybody plays it (HTML, the preload attribute). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const mediaPreloaded: FindingRule = ({ requests, leastBytes }) =>
	requests
		.filter(
			({ type, mimeType, wireBytes }) =>
				(type === 'media' || /^(video|audio)\//.test(mimeType ?? '')) && (wireBytes ?? 0) >= leastBytes
		)
		.map((request) => ({
			rule: 'media-preloaded' as const,
			resource: addressResource(request.url),
			cost: { ...NO_COST, bytes: request.wireBytes },
			evidence: seenIn(request),
			saving: null,
			limit: { most: 0, unit: 'bytes' as const },
			values: { bytes: request.wireBytes ?? 0 }
		}));
