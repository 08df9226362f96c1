/** Room that the page keeps and nothing fills. */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { selectorResource } from '../inspection';
import type { FindingRule } from '../rule';

export const slotEmpty: FindingRule = ({ record }) =>
	(record.page?.emptySlots ?? []).map(({ selector, box }) => ({
		rule: 'slot-empty' as const,
		resource: selectorResource(selector),
		cost: NO_COST,
		evidence: { ...NO_EVIDENCE, selector },
		saving: null,
		limit: { most: 0, unit: 'count' as const },
		values: { width: Math.round(box.width), height: Math.round(box.height) }
	}));
