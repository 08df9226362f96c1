/** Why an arm differs: the shift of each figure broken down into parts that add up to it, and the likeliest causes. */
import { compareFiles, findBreakdowns, type Breakdown, type Part } from './breakdowns';
import { findCauses } from './causes';
import type { Cause } from './causes/cause';
import type { LoadDigest } from './digest';

export interface Why {
	breakdowns: Breakdown[];
	/** Files of both arms, for the ledger; bytes on the wire. */
	files: Part[];
	requests: { added: number; gone: number; changed: number; alike: number };
	/** Likeliest first. */
	causes: Cause[];
	lcpElements: { before: string | null; after: string | null };
}

/**
 * @param before digests of the baseline's counted loads under some conditions @param after those of the arm; each at
 * least one
 * @throws RangeError for no loads
 */
export function explainShift(before: readonly LoadDigest[], after: readonly LoadDigest[]): Why {
	if (!before.length || !after.length) throw new RangeError('There are no loads to explain.');
	const breakdowns = findBreakdowns(before, after);
	const files = compareFiles(before, after);
	const count = (state: Part['state']) => files.filter((file) => file.state === state).length;
	return {
		breakdowns,
		files,
		requests: { added: count('added'), gone: count('gone'), changed: count('changed'), alike: count('alike') },
		causes: findCauses({ before, after, breakdowns, files }),
		lcpElements: {
			before: commonest(before.map((load) => load.lcpElement)),
			after: commonest(after.map((load) => load.lcpElement))
		}
	};
}

function commonest(values: readonly (string | null)[]): string | null {
	const counts = new Map<string | null, number>();
	for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
	return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
