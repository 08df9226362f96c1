/** Which loads count: the one place that decides it, for verdicts, charts and explanations alike. */
import { group } from 'd3-array';
import type { TrialDesign, TrialLoad } from '../types';

type Tried = Pick<TrialLoad, 'armId' | 'conditionId' | 'stage' | 'round' | 'warmup' | 'status' | 'disturbed'>;

/**
 * The loads whose figures count: of each slot the last that was measured on a calm machine. Where a trial counts
 * disturbed loads too, a slot without a calm one is stood for by its last disturbed one. Both rules look at machine
 * and browser alone.
 */
export function countedLoads<Load extends Tried>(
	{ countsDisturbed }: Pick<TrialDesign, 'countsDisturbed'>,
	loads: readonly Load[]
): Load[] {
	const measured = loads.filter((load) => !load.warmup && load.status === 'ok');
	return [...group(measured, slotOf).values()].flatMap((tries) => {
		const counted = tries.findLast((load) => !load.disturbed) ?? (countsDisturbed ? tries.at(-1) : undefined);
		return counted ? [counted] : [];
	});
}

/** Slots must have been measured this often before the machine is called too busy (house). */
const FEWEST_SLOTS = 6;
/** A trial goes on with disturbed loads once this share of its slots was disturbed twice (house). */
const MOST_DISTURBED = 1 / 3;

/** Whether the machine is too busy to wait for calm loads. */
export function isTooBusy(loads: readonly Tried[]): boolean {
	const slots = [
		...group(
			loads.filter((load) => !load.warmup),
			slotOf
		).values()
	];
	const twice = slots.filter((tries) => tries.filter((load) => load.disturbed).length >= 2);
	return slots.length >= FEWEST_SLOTS && twice.length >= slots.length * MOST_DISTURBED;
}

function slotOf({ armId, conditionId, stage, round }: Tried): string {
	return `${armId}/${conditionId}/${stage}/${round}`;
}
