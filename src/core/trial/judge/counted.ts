/** Which loads count: the one place that decides it, for verdicts, charts and explanations alike. */
import { group } from 'd3-array';
import type { TrialDesign, TrialLoad } from '../types';

type Tried = Pick<TrialLoad, 'armId' | 'conditionId' | 'stage' | 'round' | 'warmup' | 'status' | 'disturbed'>;

/**
 * The loads whose figures count: of each place the last that was measured on a calm machine. Where a trial counts
 * disturbed loads too, a place without a calm one is stood for by its last disturbed one. Both rules look at machine
 * and browser alone.
 */
export function countedLoads<Load extends Tried>(
	{ countsDisturbed }: Pick<TrialDesign, 'countsDisturbed'>,
	loads: readonly Load[]
): Load[] {
	const measured = loads.filter((load) => !load.warmup && load.status === 'ok');
	return [...group(measured, placeOf).values()].flatMap((tries) => {
		const counted = tries.findLast((load) => !load.disturbed) ?? (countsDisturbed ? tries.at(-1) : undefined);
		return counted ? [counted] : [];
	});
}

/** Places must have been measured this often before the machine is called too busy (house). */
const FEWEST_PLACES = 6;
/** A trial goes on with disturbed loads once this share of its places was disturbed twice (house). */
const MOST_DISTURBED = 1 / 3;

/** Whether the machine is too busy to wait for calm loads. */
export function isTooBusy(loads: readonly Tried[]): boolean {
	const places = [
		...group(
			loads.filter((load) => !load.warmup),
			placeOf
		).values()
	];
	const twice = places.filter((tries) => tries.filter((load) => load.disturbed).length >= 2);
	return places.length >= FEWEST_PLACES && twice.length >= places.length * MOST_DISTURBED;
}

function placeOf({ armId, conditionId, stage, round }: Tried): string {
	return `${armId}/${conditionId}/${stage}/${round}`;
}
