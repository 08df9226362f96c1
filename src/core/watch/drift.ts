/**
 * Taking the lab's own drift out of a history: the control page, which nobody changes, is loaded in the same readings.
 * What it moved is taken off in proportion: a lab that makes the control 3 % slower made the page 3 % slower. The
 * control's own scatter comes with it and is counted. Where page and control share nothing, so that taking off makes
 * the readings scatter more than twice as much, nothing is taken off.
 */
import { mean } from '../stats/summary';
import type { Block } from './block';
import { varianceWithin } from './step';

interface Corrected {
	blocks: Block[];
	/** How much of a change of the control is taken off, page's unit per control's; 0 for nothing. */
	share: number;
}

/** Fewer readings show no relation. */
const LEAST_READINGS = 6;
const MOST_SCATTER = 2;

/** @param page, control by reading, equally many; null where the control has none */
export function withoutDrift(page: readonly Block[], control: readonly (Block | null)[]): Corrected {
	const known = control.flatMap((block, at) => (block ? [{ at, block }] : []));
	const untouched = { blocks: [...page], share: 0 };
	if (known.length < LEAST_READINGS) return untouched;
	const centre = mean(known.map(({ block }) => block.middle));
	if (centre <= 0) return untouched;
	const share = Math.max(0, mean(known.map(({ at }) => page[at]!.middle)) / centre);
	const within = varianceWithin(known.map(({ block }) => block));
	const blocks = page.map((block, i) => {
		const own = control[i];
		// Without a control in this reading the drift is as uncertain as it usually is.
		if (!own) return block;
		const added = share ** 2 * (within / own.loads);
		return { ...block, middle: block.middle - share * (own.middle - centre), added };
	});
	return scatter(blocks) > MOST_SCATTER * scatter(page) ? untouched : { blocks, share };
}

/** Sum of squares of the middles about their mean: a step of both counts, since that is drift, too. */
function scatter(blocks: readonly Block[]): number {
	const centre = mean(blocks.map(({ middle }) => middle));
	return blocks.reduce((sum, { middle }) => sum + (middle - centre) ** 2, 0);
}
