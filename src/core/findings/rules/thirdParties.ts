/** Third parties by what is written down of them: nobody has confirmed them, or they start before anybody asks. */
import { group, sum } from 'd3-array';
import type { RequestRecord } from '../../load/record/record';
import { NO_COST, type Finding, type RuleId } from '../finding';
import { hostResource, seenIn, type HostKnown } from '../inspection';
import type { FindingRule } from '../rule';

const hostRule =
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

/** Where there is no register, as of an address without a client, nothing is said. */
export const thirdPartyUnconfirmed = hostRule('third-party-unconfirmed', (known) => {
	if (!known || known.isConfirmed) return null;
	return { why: known.isSeen ? 'unconfirmed' : 'unseen', purpose: known.purpose };
});

/** What people press for: purposes as the register names them. */
const ASKED_FOR = /\b(chat|video|map|social|share|sharing|player)\b/i;

export const startsUnasked = hostRule('starts-unasked', (known) =>
	known && ASKED_FOR.test(known.purpose) ? { purpose: known.purpose } : null
);
