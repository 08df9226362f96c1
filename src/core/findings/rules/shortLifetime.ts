/** Own static files that a repeat visit asks for again soon (RFC 9111). */
import { group, min, sum } from 'd3-array';
import { cacheLifetimeOf } from '../../load/requests/delivery';
import { NO_COST } from '../finding';
import { hostResource, seenIn, shortList } from '../inspection';
import type { FindingRule } from '../rule';

const DAY_S = 86_400;
/** House. */
const LEAST_S = 7 * DAY_S;
const STATIC = new Set(['script', 'stylesheet', 'image', 'font']);

/** One setting mends all files of a host: they are one finding. Where nothing is said nobody can tell. */
export const shortLifetime: FindingRule = ({ requests, leastBytes, ownerOf }) => {
	const short = requests
		.filter(({ type, host }) => STATIC.has(type) && ownerOf(host).kind !== 'third-party')
		.flatMap((request) => {
			const { seconds } = cacheLifetimeOf(request);
			return seconds === null || seconds >= LEAST_S ? [] : [{ request, seconds }];
		});
	return [...group(short, ({ request }) => request.host)].flatMap(([host, own]) => {
		const bytes = sum(own, ({ request }) => request.wireBytes ?? 0);
		if (bytes < leastBytes) return [];
		const largest = own.map(({ request }) => request).sort((a, b) => (b.wireBytes ?? 0) - (a.wireBytes ?? 0));
		return [
			{
				rule: 'short-lifetime' as const,
				resource: hostResource(host),
				cost: { ...NO_COST, bytes },
				evidence: seenIn(largest[0]!),
				saving: null,
				limit: { most: 0, unit: 'count' as const },
				values: { n: own.length, bytes, seconds: min(own, ({ seconds }) => seconds) ?? 0, files: shortList(largest) }
			}
		];
	});
};
