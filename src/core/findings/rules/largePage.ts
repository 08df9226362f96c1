/** Documents with very many elements, very deep ones, or very many in one parent. */
import { NO_COST, NO_EVIDENCE, type Finding } from '../finding';
import { pageResource } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_ELEMENTS = 2000;
const MOST_DEPTH = 30;
const MOST_CHILDREN = 80;

export const largePage: FindingRule = ({ record: { page } }) => {
	if (!page) return [];
	const { elements, depth, deepestPath, widestParent } = page;
	const found = [
		{ what: 'elements', n: elements ?? 0, most: MOST_ELEMENTS, selector: null },
		{ what: 'depth', n: depth ?? 0, most: MOST_DEPTH, selector: deepestPath },
		{ what: 'children', n: widestParent?.children ?? 0, most: MOST_CHILDREN, selector: widestParent?.selector ?? null }
	];
	return found
		.filter(({ n, most }) => n > most)
		.map(({ what, n, most, selector }): Finding => ({
			rule: 'large-page',
			resource: pageResource(what),
			cost: NO_COST,
			evidence: { ...NO_EVIDENCE, selector },
			saving: null,
			limit: { most, unit: 'count' },
			values: { what, n }
		}));
};
