/** Whether a machine is fit to measure on: what change its trials can see, and with how many rounds. */
import { visibleShare } from './noise';
import { MOST_ROUNDS } from '../judge/verdict';
import { LOOKS } from '../design/looks';

/** A change of a tenth is what a machine should see (house). */
export const WANTED_SHARE = 0.1;
/** Two variants, five metrics: what a usual trial decides on. */
const USUAL_TESTS = 5;
/** What a plan may spend of its error level. */
const PLANNED_LEVEL = 0.04;
const FEWEST_ROUNDS = 8;

/**
 * Rounds with which a change of WANTED_SHARE is seen with 80 % power.
 * @param spread of the paired differences of a page against itself, as a share of its middle figure
 * @returns MOST_ROUNDS + 1 for any larger number
 */
export function roundsToSee(spread: number): number {
	for (let rounds = FEWEST_ROUNDS; rounds <= MOST_ROUNDS; rounds++)
		if (visibleShare(rounds, spread, PLANNED_LEVEL, USUAL_TESTS) <= WANTED_SHARE) return rounds;
	return MOST_ROUNDS + 1;
}

/** `unknown` without a noise floor; `busy` when too many loads are disturbed, `noisy` when calm ones differ. */
export type Fitness =
	| { code: 'unknown' }
	| { code: 'busy'; disturbed: number; loads: number }
	| { code: 'noisy' | 'fit'; rounds: number; share: number };

/** Loads of the last day from which a share of disturbed ones says something (house). */
const FEWEST_LOADS = 6;
const MOST_DISTURBED = 1 / 3;

/** @param day loads of the last day @param spreads of paired differences by conditions, as shares; the worst counts */
export function fitnessOf(day: { loads: number; disturbed: number }, spreads: readonly number[]): Fitness {
	if (day.loads >= FEWEST_LOADS && day.disturbed >= day.loads * MOST_DISTURBED) return { code: 'busy', ...day };
	if (!spreads.length) return { code: 'unknown' };
	const rounds = roundsToSee(Math.max(...spreads));
	return { code: rounds <= LOOKS.at(-1)! ? 'fit' : 'noisy', rounds, share: WANTED_SHARE };
}
