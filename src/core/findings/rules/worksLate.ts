/** Work that begins only after the page had settled, by a timer or at the first sign of life: told as such. */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { pageResource } from '../inspection';
import type { FindingRule } from '../rule';

export const worksLate: FindingRule = ({ record, leastBytes }) => {
	const found = [
		{ how: 'postponed', late: record.postponed },
		{ how: 'held-back', late: record.heldBack }
	];
	return found.flatMap(({ how, late }) =>
		!late || late.wireBytes < leastBytes
			? []
			: [
					{
						rule: 'works-late' as const,
						resource: pageResource(how),
						cost: { ...NO_COST, bytes: late.wireBytes, threadMs: late.scriptMs || null },
						evidence: NO_EVIDENCE,
						saving: null,
						limit: { most: 0, unit: 'count' as const },
						values: { how, n: late.requests, bytes: late.wireBytes }
					}
				]
	);
};
