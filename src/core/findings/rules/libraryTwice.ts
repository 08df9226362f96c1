/** The same script or style from two addresses: by its content. */
import { group } from 'd3-array';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const libraryTwice: FindingRule = ({ requests, leastBytes }) => {
	const files = requests.filter(({ type, body }) => body !== null && (type === 'script' || type === 'stylesheet'));
	return [...group(files, ({ body }) => body!.hash).values()].flatMap((alike) => {
		const urls = [...new Set(alike.map(({ url }) => url))];
		const [first, ...others] = alike;
		const bytes = others.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0);
		if (!first || urls.length < 2 || bytes < leastBytes) return [];
		return [
			{
				rule: 'library-twice' as const,
				resource: addressResource(others[0]!.url),
				cost: { ...NO_COST, bytes },
				evidence: seenIn(others[0]!),
				saving: { bytes },
				limit: { most: 0, unit: 'count' as const },
				values: { first: first.url, n: urls.length, bytes }
			}
		];
	});
};
