/** A moving picture in a format for pictures (practice). */
import { sentBytes } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const animationAsPicture: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const picture = factsOf(request)?.picture;
		if (!picture?.isAnimated || picture.format !== 'gif' || sentBytes(request) < leastBytes) return [];
		return [
			{
				rule: 'animation-as-picture' as const,
				resource: addressResource(request.url),
				cost: { ...NO_COST, bytes: sentBytes(request) },
				evidence: seenIn(request),
				saving: null,
				limit: { most: 0, unit: 'count' as const },
				values: { bytes: sentBytes(request) }
			}
		];
	});
