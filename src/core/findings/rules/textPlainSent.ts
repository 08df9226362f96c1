/** Text that a host sends without a content coding (RFC 9110, section 8.4), and what gzip would save of it. */
import { group, sum } from 'd3-array';
import { compressionOf } from '../../load/requests/delivery';
import { NO_COST } from '../finding';
import { hostResource, seenIn, shortList } from '../inspection';
import type { FindingRule } from '../rule';

/** One switch mends all files of a host: they are one finding. */
export const textPlainSent: FindingRule = ({ requests, leastBytes, ownerOf }) => {
	const plain = requests
		.filter(({ host }) => ownerOf(host).kind !== 'third-party')
		.flatMap((request) => {
			const { encoding, wouldSave } = compressionOf(request);
			return encoding === null && wouldSave ? [{ request, wouldSave }] : [];
		});
	return [...group(plain, ({ request }) => request.host)].flatMap(([host, own]) => {
		const saved = sum(own, ({ wouldSave }) => wouldSave);
		if (saved < leastBytes) return [];
		const largest = own.toSorted((a, b) => b.wouldSave - a.wouldSave).map(({ request }) => request);
		return [
			{
				rule: 'text-plain-sent' as const,
				resource: hostResource(host),
				cost: { ...NO_COST, bytes: saved },
				evidence: seenIn(largest[0]!),
				saving: { bytes: saved },
				limit: { most: 0, unit: 'bytes' as const },
				values: {
					n: own.length,
					bytes: sum(own, ({ request }) => request.wireBytes ?? 0),
					saved,
					files: shortList(largest)
				}
			}
		];
	});
};
