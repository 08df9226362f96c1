/** The same picture, by its content, from two addresses. */
import { group } from 'd3-array';
import { sentBytes } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const pictureSameTwice: FindingRule = ({ requests, factsOf, leastBytes }) => {
	const pictures = requests.flatMap((request) => {
		const facts = request.type === 'image' ? factsOf(request) : null;
		return facts ? [{ request, hash: facts.hash }] : [];
	});
	return [...group(pictures, ({ hash }) => hash).values()].flatMap((alike) => {
		const [first, ...others] = alike.filter(
			({ request }, i) => alike.findIndex((own) => own.request.url === request.url) === i
		);
		const bytes = others.reduce((sum, { request }) => sum + sentBytes(request), 0);
		if (!first || !others.length || bytes < leastBytes) return [];
		return [
			{
				rule: 'picture-same-twice' as const,
				resource: addressResource(others[0]!.request.url),
				cost: { ...NO_COST, bytes },
				evidence: seenIn(others[0]!.request),
				saving: { bytes },
				limit: { most: 0, unit: 'count' as const },
				values: { first: first.request.url, n: others.length + 1, bytes }
			}
		];
	});
};
