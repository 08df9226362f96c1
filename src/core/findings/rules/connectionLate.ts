/** A host that the first or largest paint needs is first connected to late (Resource Hints). */
import { group, least } from 'd3-array';
import { NO_COST } from '../finding';
import { seenIn } from '../inspection';
import type { FindingRule } from '../rule';

const ROUND_TRIPS = 2;

export const connectionLate: FindingRule = ({ requests, document, largest, roundTripMs }) => {
	if (!document || document.responseMs === null || roundTripMs === null) return [];
	const from = document.responseMs;
	const most = ROUND_TRIPS * roundTripMs;
	const others = requests.filter(({ host }) => host !== document.host);
	return [...group(others, ({ host }) => host)].flatMap(([host, own]) => {
		const isNeeded = own.some((request) => request === largest || request.renderBlocking === 'blocking');
		const first = least(own, ({ startMs }) => startMs)!;
		const connecting = (first.timing.connect ?? 0) + (first.timing.dns ?? 0);
		const lateMs = first.startMs - from;
		if (!isNeeded || connecting === 0 || lateMs <= most) return [];
		return [
			{
				rule: 'connection-late' as const,
				resource: { kind: 'owner' as const, name: host, key: host },
				cost: {
					...NO_COST,
					metric: own.includes(largest!) ? ('lcp' as const) : ('fcp' as const),
					delay: Math.round(connecting)
				},
				evidence: seenIn(first),
				saving: null,
				limit: { most, unit: 'ms' as const },
				values: { host, lateMs, connecting }
			}
		];
	});
};
