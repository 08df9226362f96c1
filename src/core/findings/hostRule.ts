/** What the rules of third parties share: a host by what the client's register says of it. */
import { group, sum } from 'd3-array';
import type { RequestRecord } from '../load/record/record';
import { NO_COST, type Finding, type RuleId } from './finding';
import { hostResource, seenIn, type HostKnown } from './inspection';
import type { FindingRule } from './rule';

export const hostRule =
	(rule: RuleId, judge: (known: HostKnown | null) => Record<string, string> | null): FindingRule =>
	({ requests, ownerOf, noteOf, leastBytes }) =>
		[...group(requests, ({ host }) => host)].flatMap(([host, own]): Finding[] => {
			if (ownerOf(host).kind !== 'third-party') return [];
			const values = judge(noteOf(host));
			const bytes = sum(own, ({ wireBytes }) => wireBytes ?? 0);
			if (!values || bytes < leastBytes) return [];
			return [
				{
					rule,
					resource: hostResource(host),
					cost: { ...NO_COST, bytes },
					evidence: seenIn(first(own)),
					saving: { bytes },
					limit: { most: 0, unit: 'count' },
					values: { ...values, n: own.length, bytes }
				}
			];
		});

const first = (requests: readonly RequestRecord[]) => requests.reduce((a, b) => (b.startMs < a.startMs ? b : a));
