/** Parser-blocking scripts before the first paint of which most never runs (HTML, the script element). */
import { NO_COST } from '../finding';
import { addressResource, endedBy, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** What never runs at all was not used by the first paint either: from half on (house). */
const UNUSED_SHARE = 0.5;

export const scriptInTheWay: FindingRule = ({ requests, record, document }) => {
	const { fcp } = record.figures;
	if (fcp === null || !document) return [];
	const start = document.responseMs ?? document.startMs;
	return requests
		.filter((request) => request.type === 'script' && request.renderBlocking === 'blocking' && endedBy(request, fcp))
		.flatMap((request) => {
			if (request.unused === null || !request.decodedBytes) return [];
			const share = request.unused / request.decodedBytes;
			if (share < UNUSED_SHARE) return [];
			return [
				{
					rule: 'script-in-the-way' as const,
					resource: addressResource(request.url),
					cost: {
						...NO_COST,
						bytes: request.wireBytes,
						metric: 'fcp' as const,
						delay: Math.max(0, request.endMs! - start)
					},
					evidence: seenIn(request),
					saving: null,
					limit: { most: 0, unit: 'count' as const },
					values: { share, bytes: request.wireBytes ?? 0 }
				}
			];
		});
};
