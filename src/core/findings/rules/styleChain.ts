/** A style sheet that names a further one, which is asked for only then (CSS Cascade 5, `@import`). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const styleChain: FindingRule = ({ requests, record }) => {
	const sheets = new Map(requests.filter(({ type }) => type === 'stylesheet').map((sheet) => [sheet.url, sheet]));
	return [...sheets.values()].flatMap((sheet) => {
		const parent = sheet.initiatorUrl === null ? undefined : sheets.get(sheet.initiatorUrl);
		if (!parent || parent === sheet) return [];
		const delay = sheet.endMs !== null && parent.endMs !== null ? Math.max(0, sheet.endMs - parent.endMs) : null;
		const isBefore = record.figures.fcp !== null && (sheet.endMs ?? Infinity) <= record.figures.fcp;
		return [
			{
				rule: 'style-chain' as const,
				resource: addressResource(sheet.url),
				cost: { ...NO_COST, bytes: null, metric: isBefore ? ('fcp' as const) : null, delay: isBefore ? delay : null },
				evidence: seenIn(sheet),
				saving: null,
				limit: { most: 0, unit: 'count' as const },
				values: { parent: parent.url }
			}
		];
	});
};
