/** Headlines for rows of lists. */
import { headlineOf, type Headline } from '$core/wording/headline';
import type { Db } from '../db/connection';
import type { Trial } from './trial';
import { judgementForList } from './judgement';

/** Empty while the answer is being worked out. */
export function headlinesOf(db: Db, trial: Trial): Headline[] {
	const judgement = judgementForList(db, trial);
	return judgement ? headlineOf(trial.design, judgement) : [];
}
