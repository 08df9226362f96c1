/** Style sheets that the first paint waited for, mostly unused or from another host (HTML; CSS coverage). */
import { NO_COST } from '../finding';
import { addressResource, endedBy, seenIn, wireOf } from '../inspection';
import type { FindingRule } from '../rule';

/** The first paint came within this of the sheet's end (house). */
const RIGHT_AFTER_MS = 100;
const UNUSED_SHARE = 0.5;

export const styleInTheWay: FindingRule = ({ requests, record, ownerOf, leastBytes, document }) => {
	const { fcp } = record.figures;
	if (fcp === null || !document) return [];
	const start = document.responseMs ?? document.startMs;
	return requests
		.filter(
			(request) => request.type === 'stylesheet' && request.renderBlocking === 'blocking' && endedBy(request, fcp)
		)
		.flatMap((request) => {
			const unusedShare = request.unused !== null && request.decodedBytes ? request.unused / request.decodedBytes : 0;
			const isFar = ownerOf(request.host).kind === 'third-party';
			const unusedWire = wireOf(request, request.unused ?? 0);
			const isMostlyUnused = unusedShare >= UNUSED_SHARE && unusedWire >= leastBytes;
			if (fcp - request.endMs! > RIGHT_AFTER_MS || !(isFar || isMostlyUnused)) return [];
			return [
				{
					rule: 'style-in-the-way' as const,
					resource: addressResource(request.url),
					cost: {
						...NO_COST,
						bytes: unusedWire || null,
						metric: 'fcp' as const,
						delay: Math.max(0, request.endMs! - start)
					},
					evidence: seenIn(request),
					saving: null,
					limit: { most: 0, unit: 'count' as const },
					values: { share: unusedShare, bytes: unusedWire, isFar: Number(isFar) }
				}
			];
		});
};
