/** Whether more rounds would help an answer, and how many. */
import { hasStages } from '../design/kinds';
import type { ShiftResult, TrialKind } from '../types';
import { MOST_ROUNDS } from './verdict';

/** Where few rounds would do. */
const USUAL = 6;

type Decided = Pick<ShiftResult, 'primary' | 'verdict' | 'roundsNeeded' | 'n'>;

/**
 * Rounds beyond those that were made, for the primary result that needs most of them; null where the trial has stages,
 * nothing is open, or what is open is beyond the rounds that a trial may have.
 */
export function suggestedRounds(kind: TrialKind, results: readonly Decided[]): number | null {
	if (hasStages(kind)) return null;
	const missing = results.flatMap(({ primary, verdict, roundsNeeded, n }) =>
		primary && verdict === 'undecided' && roundsNeeded !== null && roundsNeeded <= MOST_ROUNDS ? [roundsNeeded - n] : []
	);
	if (!missing.length) return null;
	const most = Math.max(...missing);
	return most > 0 ? most : USUAL;
}
