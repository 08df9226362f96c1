/** Many requests to one host over HTTP/1.1, where they wait for one another (RFC 9113 has them share a connection). */
import { group } from 'd3-array';
import { NO_COST } from '../finding';
import { seenIn, type Inspection } from '../inspection';
import type { FindingRule } from '../rule';

/** Connections that browsers open to a host: more requests wait (practice). */
const MOST = 6;

export const oldProtocol: FindingRule = ({ requests, ownerOf }: Inspection) =>
	[...group(requests, ({ host }) => host)].flatMap(([host, own]) => {
		const old = own.filter(({ protocol }) => protocol === 'http/1.1');
		if (old.length <= MOST || ownerOf(host).kind === 'third-party') return [];
		return [
			{
				rule: 'old-protocol' as const,
				resource: { kind: 'owner' as const, name: host, key: host },
				cost: NO_COST,
				evidence: seenIn(old[0]!),
				saving: null,
				limit: { most: MOST, unit: 'count' as const },
				values: { n: old.length, host }
			}
		];
	});
