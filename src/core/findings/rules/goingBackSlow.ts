/** Headers that keep the browser from showing the page at once when a visitor comes back (HTML, back/forward cache). */
import { cacheLifetimeOf } from '../../load/requests/delivery';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const goingBackSlow: FindingRule = ({ document }) =>
	document && cacheLifetimeOf(document).kind === 'none'
		? [
				{
					rule: 'going-back-slow',
					resource: addressResource(document.url),
					cost: NO_COST,
					evidence: seenIn(document),
					saving: null,
					limit: { most: 0, unit: 'count' },
					values: {}
				}
			]
		: [];
