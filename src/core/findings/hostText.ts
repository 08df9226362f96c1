/** Text files of a host that one switch mends together: they are one finding. */
import { group, sum } from 'd3-array';
import type { RequestRecord } from '../load/record/record';
import { NO_COST, type Finding, type RuleId } from './finding';
import { hostResource, seenIn, shortList, type Inspection } from './inspection';

export interface SavedText {
	request: RequestRecord;
	/** Bytes as it is sent now, and what the switch saves of them. */
	sent: number;
	saved: number;
}

/** @param savedOf null for a file that the switch does not mend */
export function hostTextFindings(
	rule: RuleId,
	{ requests, ownerOf, leastBytes }: Pick<Inspection, 'requests' | 'ownerOf' | 'leastBytes'>,
	savedOf: (request: RequestRecord) => Omit<SavedText, 'request'> | null
): Finding[] {
	const files = requests
		.filter(({ host }) => ownerOf(host).kind !== 'third-party')
		.flatMap((request): SavedText[] => {
			const found = savedOf(request);
			return found ? [{ request, ...found }] : [];
		});
	return [...group(files, ({ request }) => request.host)].flatMap(([host, own]) => {
		const saved = sum(own, (file) => file.saved);
		if (saved < leastBytes) return [];
		const largest = own.toSorted((a, b) => b.saved - a.saved).map(({ request }) => request);
		return [
			{
				rule,
				resource: hostResource(host),
				cost: { ...NO_COST, bytes: saved },
				evidence: seenIn(largest[0]!),
				saving: { bytes: saved },
				limit: { most: 0, unit: 'bytes' as const },
				values: { n: own.length, bytes: sum(own, ({ sent }) => sent), saved, files: shortList(largest) }
			}
		];
	});
}
