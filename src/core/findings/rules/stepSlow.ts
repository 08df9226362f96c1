/** A step whose answer is painted late (Event Timing). */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { pageResource } from '../inspection';
import type { FindingRule } from '../rule';

/** The good threshold of INP (web.dev). */
const MOST_MS = 200;

export const stepSlow: FindingRule = ({ record }) =>
	record.steps
		.filter(({ status, inp }) => status === 'ok' && (inp ?? 0) > MOST_MS)
		.map(({ words, inp, atMs }) => ({
			rule: 'step-slow' as const,
			resource: pageResource(words),
			cost: { ...NO_COST, metric: 'inp' as const, delay: inp! - MOST_MS },
			evidence: { ...NO_EVIDENCE, atMs },
			saving: null,
			limit: { most: MOST_MS, unit: 'ms' as const },
			values: { ms: inp! }
		}));
