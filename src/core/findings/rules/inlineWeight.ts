/** Data and script inside the document, which no cache keeps apart from it. */
import { sum } from 'd3-array';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource } from '../inspection';
import type { FindingRule } from '../rule';

/** Of the document (house). */
const MOST_SHARE = 0.25;

export const inlineWeight: FindingRule = ({ document, record, leastBytes }) => {
	const inline = record.page?.inline ?? [];
	if (!document?.decodedBytes) return [];
	const bytes = sum(inline, ({ bytes: own }) => own);
	const share = bytes / document.decodedBytes;
	const wireBytes = Math.round((document.wireBytes ?? 0) * Math.min(1, share));
	if (share <= MOST_SHARE || wireBytes < leastBytes) return [];
	const largest = inline.toSorted((a, b) => b.bytes - a.bytes)[0]!;
	return [
		{
			rule: 'inline-weight',
			resource: addressResource(document.url),
			cost: { ...NO_COST, bytes: wireBytes },
			evidence: { ...NO_EVIDENCE, request: document.id },
			saving: null,
			limit: { most: MOST_SHARE, unit: 'share' },
			values: { bytes, share, n: inline.length, largest: largest.bytes, start: largest.start.slice(0, 60) }
		}
	];
};
