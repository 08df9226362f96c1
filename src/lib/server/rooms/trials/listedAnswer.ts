/** Answers for rows of lists. */
import type { Db } from '../../base/db/connection';
import { stripsOf, type StripView } from './boardView';
import { lateSeenOf } from './queries/lateView';
import { putOffFrom } from './lateView';
import { judgementForList } from './judgement';
import type { Trial } from './trial';

export interface ListedAnswer {
	strips: StripView[];
	/** How many further lines the sheet has. */
	more: number;
}

/** Empty while the answer is being worked out. */
export function listedAnswer(db: Db, trial: Trial): ListedAnswer {
	const judgement = judgementForList(db, trial);
	if (!judgement) return { strips: [], more: 0 };
	return stripsOf(trial.question, trial.design, judgement, putOffFrom(trial.design, lateSeenOf(db, trial.id)));
}
