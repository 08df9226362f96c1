/** Whether more rounds would help an answer, and how many. */
import { hasStages } from '$core/trial/kinds';
import type { SheetView } from '$lib/server/trials/sheetView';

const open = ({ judgement }: Pick<SheetView, 'judgement'>) =>
	judgement.results.filter(({ primary, verdict, roundsNeeded }) => primary && verdict === 'undecided' && roundsNeeded);

/** Where something is open that more rounds would decide, they stand beside the answer. */
export const offersRounds = (data: Pick<SheetView, 'judgement' | 'trial'>): boolean =>
	data.trial.status === 'done' && !hasStages(data.trial.kind) && open(data).length > 0;

/** Beyond those that were made, for what needs most of them. */
export function suggestedRounds({ judgement }: Pick<SheetView, 'judgement'>): number {
	const missing = open({ judgement }).map(({ roundsNeeded, n }) => roundsNeeded! - n);
	return Math.max(1, ...missing.filter(Number.isFinite));
}
