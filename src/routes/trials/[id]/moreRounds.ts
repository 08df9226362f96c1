/** Whether more rounds would help an answer, and how many. */
import { hasStages } from '$core/trial/design/kinds';
import { MOST_ROUNDS } from '$core/trial/judge/verdict';
import type { SheetView } from '$lib/server/rooms/trials/sheetView';

const USUAL = 6;

/** What more rounds would probably decide; what is beyond reach is told instead. */
const open = ({ judgement }: Pick<SheetView, 'judgement'>) =>
	judgement.results.filter(
		({ primary, verdict, roundsNeeded }) =>
			primary && verdict === 'undecided' && roundsNeeded !== null && roundsNeeded <= MOST_ROUNDS
	);

/** Where something is open that more rounds would decide, they stand beside the answer. */
export const offersRounds = (data: Pick<SheetView, 'judgement' | 'trial'>): boolean =>
	data.trial.status === 'done' && !hasStages(data.trial.kind) && open(data).length > 0;

/** Beyond those that were made, for what needs most of them; a few where few would do. */
export function suggestedRounds({ judgement }: Pick<SheetView, 'judgement'>): number {
	const missing = open({ judgement }).map(({ roundsNeeded, n }) => roundsNeeded! - n);
	const most = Math.max(...missing);
	return most > 0 ? most : USUAL;
}
