/** Fonts in a format that packs worse than WOFF2. */
import type { RequestRecord } from '../../load/record/record';
import { sentBytes, type BodyFacts } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

const IS_WOFF2 = /woff2/i;

function repacked(request: RequestRecord, facts: BodyFacts | null): { bytes: number } | null {
	const woff2 = facts?.font?.woff2 ?? null;
	return woff2 === null ? null : { bytes: Math.max(0, sentBytes(request) - woff2) };
}

export const fontFormat: FindingRule = ({ requests, leastBytes, factsOf }) =>
	requests
		.filter(({ type, url, mimeType, wireBytes }) => {
			const isPacked = IS_WOFF2.test(mimeType ?? '') || IS_WOFF2.test(new URL(url).pathname);
			return type === 'font' && !isPacked && (wireBytes ?? 0) >= leastBytes;
		})
		.map((request) => ({
			rule: 'font-format' as const,
			resource: addressResource(request.url),
			cost: { ...NO_COST, bytes: request.wireBytes },
			evidence: seenIn(request),
			saving: repacked(request, factsOf(request)),
			limit: { most: 0, unit: 'count' as const },
			values: { bytes: request.wireBytes ?? 0, type: request.mimeType ?? '' }
		}));
