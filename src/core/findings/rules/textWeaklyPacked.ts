/** Text that a host sends with gzip where Brotli saves much (RFC 7932). */
import { group, sum } from 'd3-array';
import { compressionOf } from '../../load/requests/delivery';
import { sentBytes } from '../bodyFacts';
import { NO_COST } from '../finding';
import { hostResource, seenIn, shortList } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const LEAST_SHARE = 0.15;
const WEAK = new Set(['gzip', 'deflate']);

export const textWeaklyPacked: FindingRule = ({ requests, leastBytes, ownerOf, factsOf }) => {
	const weak = requests
		.filter(({ host }) => ownerOf(host).kind !== 'third-party')
		.flatMap((request) => {
			const packed = factsOf(request)?.packed;
			if (!packed || !WEAK.has(compressionOf(request).encoding ?? '')) return [];
			const sent = sentBytes(request);
			const saved = sent - packed.brotli;
			return saved > sent * LEAST_SHARE ? [{ request, sent, saved }] : [];
		});
	return [...group(weak, ({ request }) => request.host)].flatMap(([host, own]) => {
		const saved = sum(own, (file) => file.saved);
		if (saved < leastBytes) return [];
		const largest = own.toSorted((a, b) => b.saved - a.saved).map(({ request }) => request);
		return [
			{
				rule: 'text-weakly-packed' as const,
				resource: hostResource(host),
				cost: { ...NO_COST, bytes: saved },
				evidence: seenIn(largest[0]!),
				saving: { bytes: saved },
				limit: { most: 0, unit: 'bytes' as const },
				values: { n: own.length, bytes: sum(own, ({ sent }) => sent), saved, files: shortList(largest) }
			}
		];
	});
};
