/** Script, style and markup with spaces and comments that nobody needs. */
import { compressionOf } from '../../load/requests/delivery';
import { packedAs } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** What minifying must save, in the coding that the host uses (house). */
const LEAST_SHARE = 0.1;

export const notMinified: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const facts = factsOf(request);
		if (!facts?.packed || !facts.minified) return [];
		const { encoding } = compressionOf(request);
		const [now, then] = [packedAs(facts.packed, encoding), packedAs(facts.minified, encoding)];
		const saved = now - then;
		if (saved < leastBytes || saved < now * LEAST_SHARE) return [];
		return [
			{
				rule: 'not-minified' as const,
				resource: addressResource(request.url),
				cost: { ...NO_COST, bytes: saved },
				evidence: seenIn(request),
				saving: { bytes: saved },
				limit: { most: LEAST_SHARE, unit: 'share' as const },
				values: { bytes: now, saved, share: saved / now }
			}
		];
	});
