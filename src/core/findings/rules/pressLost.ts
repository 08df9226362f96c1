/** A control that is seen, pressed early, and does nothing yet: from the tap test of a load. */
import { tapVerdict } from '../../load/journey/tap';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { selectorResource } from '../inspection';
import type { FindingRule } from '../rule';

const BAD = new Set(['lost', 'moved', 'covered']);

export const pressLost: FindingRule = ({ record: { tap } }) => {
	if (!tap) return [];
	const how = tapVerdict(tap);
	if (!BAD.has(how)) return [];
	return [
		{
			rule: 'press-lost',
			resource: selectorResource(tap.selector),
			cost: NO_COST,
			evidence: { ...NO_EVIDENCE, selector: tap.selector, atMs: tap.atMs },
			saving: null,
			limit: { most: 0, unit: 'count' },
			values: { how, afterMs: tap.afterMs }
		}
	];
};
