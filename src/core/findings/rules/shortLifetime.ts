/** Own static files that a repeat visit asks for again soon (RFC 9111); a version in the address excuses nothing. */
import { cacheLifetimeOf } from '../../load/requests/delivery';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

const DAY_S = 86_400;
/** House. */
const LEAST_S = 7 * DAY_S;
const STATIC = new Set(['script', 'stylesheet', 'image', 'font']);

export const shortLifetime: FindingRule = ({ requests, leastBytes, ownerOf }) =>
	requests
		.filter(
			({ type, host, wireBytes }) =>
				STATIC.has(type) && ownerOf(host).kind !== 'third-party' && (wireBytes ?? 0) >= leastBytes
		)
		.flatMap((request) => {
			const lifetime = cacheLifetimeOf(request);
			// Where nothing is said a browser may keep it for a tenth of its age: nobody can tell.
			if (lifetime.seconds === null || lifetime.seconds >= LEAST_S) return [];
			return [
				{
					rule: 'short-lifetime' as const,
					resource: addressResource(request.url),
					cost: { ...NO_COST, bytes: request.wireBytes },
					evidence: seenIn(request),
					saving: null,
					limit: { most: 0, unit: 'count' as const },
					values: { bytes: request.wireBytes ?? 0, seconds: lifetime.seconds, kind: lifetime.kind }
				}
			];
		});
