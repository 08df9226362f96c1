/** More files of one family than text needs (CSS Fonts 4). */
import { group } from 'd3-array';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { pageResource } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_FILES = 4;

export const fontMany: FindingRule = ({ record, requests }) => {
	const drawn = (record.page?.fonts ?? []).filter(({ status }) => status === 'loaded');
	const bytes = requests
		.filter(({ type }) => type === 'font')
		.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0);
	return [...group(drawn, ({ family }) => family)].flatMap(([family, own]) =>
		own.length <= MOST_FILES
			? []
			: [
					{
						rule: 'font-many' as const,
						resource: pageResource(family),
						cost: { ...NO_COST, bytes: bytes || null },
						evidence: NO_EVIDENCE,
						saving: null,
						limit: { most: MOST_FILES, unit: 'count' as const },
						values: { n: own.length, family }
					}
				]
	);
};
