/** Answers for rows of lists. */
import { isRehearsal, type Judgement } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { loadsOfTrial } from '../loads/view';
import { besideFigures, caveatsView } from './caveats';
import { evidenceView } from './evidenceView';
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
	const { question, design } = trial;
	const caveats = isRehearsal(design) ? caveatsOf(db, trial, judgement) : [];
	return stripsOf(question, design, judgement, putOffFrom(design, lateSeenOf(db, trial.id)), caveats);
}

/** In a list, too, a rehearsal that broke the page tells no gain. */
function caveatsOf(db: Db, trial: Trial, judgement: Pick<Judgement, 'results'>) {
	const returnType = besideFigures(db, trial, loadsOfTrial(db, trial.id));
	return caveatsView(trial.design, { judgement, evidence: evidenceView(db, trial), returnType });
}
