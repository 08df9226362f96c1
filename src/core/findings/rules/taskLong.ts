/** Tasks of more than 50 ms, by the script that ran in them (Long Tasks; Long Animation Frames). */
import { rollups, sum } from 'd3-array';
import { ownedTasks } from '../../load/vitals/mainThread';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource } from '../inspection';
import type { FindingRule } from '../rule';

/** A load (house). */
const LEAST_MS = 100;

export const taskLong: FindingRule = ({ record }) => {
	const siteHost = new URL(record.finalUrl || record.url).host;
	const shares = ownedTasks(record, siteHost)
		.flatMap(({ shares: own, startMs }) => own.map((share) => ({ ...share, startMs })))
		.filter(({ url }) => /^https?:/.test(url));
	const byUrl = rollups(
		shares,
		(own) => ({ ms: sum(own, ({ durationMs }) => durationMs), atMs: own[0]!.startMs, n: own.length }),
		({ url }) => url
	);
	return byUrl
		.filter(([, { ms }]) => ms >= LEAST_MS)
		.map(([url, { ms, atMs, n }]) => ({
			rule: 'task-long' as const,
			resource: addressResource(url),
			cost: { ...NO_COST, threadMs: ms, metric: 'tbt' as const, delay: null },
			evidence: { ...NO_EVIDENCE, request: record.requests.find((request) => request.url === url)?.id ?? null, atMs },
			saving: null,
			limit: { most: LEAST_MS, unit: 'ms' as const },
			values: { ms, n, functions: functionsOf(record.longFrames, url) }
		}));
};

/** The functions that took the longest, at most two. */
function functionsOf(frames: Parameters<FindingRule>[0]['record']['longFrames'], url: string): string {
	const scripts = frames
		.flatMap(({ scripts: own }) => own)
		.filter((script) => script.url === url && script.functionName);
	const names = scripts.sort((a, b) => b.durationMs - a.durationMs).map(({ functionName }) => functionName);
	return [...new Set(names)].slice(0, 2).join(', ');
}
