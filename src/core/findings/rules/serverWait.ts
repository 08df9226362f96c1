/** Waiting for the document longer than for the rest of its first byte (web.dev, "Time to First Byte"). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_WAIT_MS = 400;

export const serverWait: FindingRule = ({ document, record }) => {
	const waitMs = document?.timing.wait ?? null;
	const firstByteMs = record.figures.ttfb;
	if (!document || waitMs === null || firstByteMs === null) return [];
	if (waitMs <= MOST_WAIT_MS || waitMs <= firstByteMs - waitMs) return [];
	return [
		{
			rule: 'server-wait',
			resource: addressResource(document.url),
			cost: { ...NO_COST, metric: 'ttfb', delay: waitMs - MOST_WAIT_MS },
			evidence: seenIn(document),
			saving: null,
			limit: { most: MOST_WAIT_MS, unit: 'ms' },
			values: { waitMs, mostMs: MOST_WAIT_MS }
		}
	];
};
