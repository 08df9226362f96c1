/** The largest picture was painted long after it had come, with nothing but its appearance in the way (practice). */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_MS = 100;

export const largestFadedIn: FindingRule = ({ largest, record }) => {
	const { lcp, longTasks, figures } = record;
	if (!largest?.endMs || !lcp || figures.fcp === null) return [];
	const from = Math.max(largest.endMs, figures.fcp);
	// A thread that is busy paints nothing: that is another finding.
	const busyMs = longTasks.reduce((sum, { startMs, durationMs }) => {
		const overlap = Math.min(lcp.atMs, startMs + durationMs) - Math.max(from, startMs);
		return sum + Math.max(0, overlap);
	}, 0);
	const delay = lcp.atMs - from - busyMs;
	if (delay <= MOST_MS) return [];
	return [
		{
			rule: 'largest-faded-in',
			resource: addressResource(largest.url),
			cost: { ...NO_COST, metric: 'lcp', delay: delay - MOST_MS },
			evidence: { ...NO_EVIDENCE, request: largest.id, selector: lcp.selector, atMs: lcp.atMs },
			saving: null,
			limit: { most: MOST_MS, unit: 'ms' },
			values: { delayMs: delay }
		}
	];
};
