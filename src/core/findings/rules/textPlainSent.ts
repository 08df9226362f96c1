/** Text sent without a content coding (RFC 9110, section 8.4), and what gzip would save of it. */
import { compressionOf } from '../../load/requests/delivery';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const textPlainSent: FindingRule = ({ requests, leastBytes, ownerOf }) =>
	requests
		.filter(({ host }) => ownerOf(host).kind !== 'third-party')
		.flatMap((request) => {
			const { encoding, wouldSave } = compressionOf(request);
			if (encoding !== null || wouldSave === null || wouldSave < leastBytes) return [];
			return [
				{
					rule: 'text-plain-sent' as const,
					resource: addressResource(request.url),
					cost: { ...NO_COST, bytes: wouldSave },
					evidence: seenIn(request),
					saving: { bytes: wouldSave },
					limit: { most: 0, unit: 'bytes' as const },
					values: { bytes: request.wireBytes ?? 0, saved: wouldSave }
				}
			];
		});
