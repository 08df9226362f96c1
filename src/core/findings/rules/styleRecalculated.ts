/** Style and layout that a script forces again and again (Long Animation Frames: forced style and layout). */
import { rollups, sum } from 'd3-array';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_MS = 50;

export const styleRecalculated: FindingRule = ({ record }) => {
	const scripts = record.longFrames.flatMap((frame) => frame.scripts).filter(({ url }) => /^https?:/.test(url));
	return rollups(
		scripts,
		(own) => ({ ms: sum(own, ({ layoutMs }) => layoutMs), atMs: own[0]!.startMs }),
		({ url }) => url
	)
		.filter(([, { ms }]) => ms > MOST_MS)
		.map(([url, { ms, atMs }]) => ({
			rule: 'style-recalculated' as const,
			resource: addressResource(url),
			cost: { ...NO_COST, threadMs: ms },
			evidence: { ...NO_EVIDENCE, atMs },
			saving: null,
			limit: { most: MOST_MS, unit: 'ms' as const },
			values: { ms }
		}));
};
