/** Script, style and markup by their text: spaces and comments, code for old browsers, writing into the document. */
import { compressionOf } from '../../load/requests/delivery';
import { packedAs, sentBytes } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** What minifying must save, in the coding that the host uses (house). */
const LEAST_SHARE = 0.1;
/** Known helpers of one file (house). */
const LEAST_HELPERS = 3;

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

export const forOldBrowsers: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const helpers = factsOf(request)?.helpers ?? [];
		if (helpers.length < LEAST_HELPERS || sentBytes(request) < leastBytes) return [];
		return [
			{
				rule: 'for-old-browsers' as const,
				resource: addressResource(request.url),
				cost: NO_COST,
				evidence: seenIn(request),
				saving: null,
				limit: { most: LEAST_HELPERS - 1, unit: 'count' as const },
				values: { n: helpers.length, names: helpers.slice(0, 4).join(', ') }
			}
		];
	});

export const writesDocument: FindingRule = ({ requests, factsOf }) =>
	requests
		.filter((request) => request.type === 'script' && factsOf(request)?.writesDocument)
		.map((request) => ({
			rule: 'writes-document' as const,
			resource: addressResource(request.url),
			cost: NO_COST,
			evidence: seenIn(request),
			saving: null,
			limit: { most: 0, unit: 'count' as const },
			values: {}
		}));
