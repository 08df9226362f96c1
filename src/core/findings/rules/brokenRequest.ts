/** Requests that failed or were answered with an error (RFC 9110, section 15). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** Given up by the page itself. */
const GIVEN_UP = /ERR_ABORTED|ERR_BLOCKED_BY_CLIENT/;

export const brokenRequest: FindingRule = ({ asked }) =>
	asked
		.filter(({ status, failed }) => (status ?? 0) >= 400 || (failed !== null && !GIVEN_UP.test(failed)))
		.map((request) => ({
			rule: 'broken-request' as const,
			resource: addressResource(request.url),
			cost: { ...NO_COST, bytes: request.wireBytes },
			evidence: seenIn(request),
			saving: null,
			limit: { most: 0, unit: 'count' as const },
			values: { status: request.status ?? 0, failed: (request.failed ?? '').replace('net::', '') }
		}));
