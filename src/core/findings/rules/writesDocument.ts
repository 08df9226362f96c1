/** Script that writes into the document while it is read (HTML, document.write). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

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
