/**
 * Taking the lab's own drift out of a history: the control page, which nobody changes, is loaded in the same readings.
 * What it moved is taken off in proportion: a lab that makes the control 3 % slower made the page 3 % slower.
 *
 * Within one lab the control's deviation is taken off as far as it is drift and not its own scatter (shrunk by their
 * variances, as a best linear prediction does; Robinson 1991). Over an update of the lab its whole move is taken off,
 * so that older readings stay comparable. What is then still uncertain is told with each reading. Where page and
 * control share nothing, so that taking off makes the readings scatter more than twice as much, nothing is taken off,
 * and readings before an update don't count.
 */
import { mean } from '../stats/summary';
import type { Block } from './block';
import { ownScatter } from './scatter';
import { varianceWithin } from './step';

export interface Corrected {
	/** As they would be in the newest lab. */
	blocks: Block[];
	/** Variance that the control's move over an update brings with it; at each update's first reading, else 0. */
	moves: number[];
	/** Index of the first reading that can be compared with the newest. */
	from: number;
	/** How much of a change of the control is taken off, page's unit per control's; 0 for nothing. */
	share: number;
}

/** Fewer readings show no relation. */
const LEAST_READINGS = 6;
const MOST_SCATTER = 2;

/**
 * @param page, control by reading, equally many; null where the control has none
 * @param updates indices of the first readings after the lab changed, ascending
 */
export function withoutDrift(
	page: readonly Block[],
	control: readonly (Block | null)[],
	updates: readonly number[] = []
): Corrected {
	const none = page.map(() => 0);
	const untouched = { blocks: [...page], moves: none, from: updates.at(-1) ?? 0, share: 0 };
	const starts = [0, ...updates];
	const parts = starts.map((start, i) => {
		const steady = control.slice(start, starts[i + 1]).flatMap((block) => (block ? [block] : []));
		return {
			start,
			known: steady,
			centre: steady.length ? mean(steady.map(({ middle }) => middle)) : NaN
		};
	});
	// Before a part without a control nothing is known of what the lab did.
	const first = parts.findLastIndex(({ known }) => known.length === 0) + 1;
	const used = parts.slice(first);
	const steady = used.flatMap((part) => part.known);
	const newest = used.at(-1)?.centre ?? 0;
	if (steady.length < LEAST_READINGS || newest <= 0) return untouched;
	const from = used[0]!.start;
	const partOf = (index: number) => used.findLast(({ start }) => start <= index)!;
	const measured = page.flatMap(({ middle }, i) => (i >= from && control[i] ? [middle] : []));
	const share = Math.max(0, mean(measured) / mean(steady.map(({ middle }) => middle)));
	const within = varianceWithin(steady);
	const own = ownScatter(
		used.map((part) => part.known),
		({ loads }) => within / loads
	);
	const drift = Math.max(0, own?.between ?? 0) * newest ** 2;
	const trustIn = ({ loads }: Block) => (drift > 0 ? drift / (drift + within / loads) : 0);
	const blocks = page.map((block, i): Block => {
		if (i < from) return block;
		const [part, its] = [partOf(i), control[i] ?? null];
		const deviation = its ? trustIn(its) * (its.middle - part.centre) : 0;
		const added = share ** 2 * drift * (its ? 1 - trustIn(its) : 1);
		return { ...block, middle: block.middle - share * (part.centre - newest + deviation), added };
	});
	if (scatter(blocks.slice(from)) > MOST_SCATTER * scatter(page.slice(from))) return untouched;
	// The drift of a part's readings is the page's, too: only the control's own scatter makes its centre uncertain.
	const certainty = (blocksOf: readonly Block[]) => mean(blocksOf.map(({ loads }) => within / loads)) / blocksOf.length;
	const moves = [...none];
	used.slice(1).forEach((part, i) => {
		moves[part.start] = share ** 2 * (certainty(used[i]!.known) + certainty(part.known));
	});
	return { blocks, moves, from, share };
}

/** Sum of squares of the middles about their mean: a step of both counts, since that is drift, too. */
function scatter(blocks: readonly Block[]): number {
	const centre = mean(blocks.map(({ middle }) => middle));
	return blocks.reduce((sum, { middle }) => sum + (middle - centre) ** 2, 0);
}
