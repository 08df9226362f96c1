/** What a trial's sheet is made from: read once for all that is shown of it. */
import type { Judgement } from '$core/trial/types';
import type { Db } from '../../../base/db/connection';
import { besideFigures } from '../caveats';
import { evidenceView, type EvidenceView } from '../evidenceView';
import { judgementForPage, type JudgeElsewhere } from '../judgement';
import type { Trial } from '../trial';
import { loadsOfTrial, type LoadSummary } from '../../loads/view';

export interface SheetMaterial {
	db: Db;
	trial: Trial;
	loads: readonly LoadSummary[];
	judgement: Judgement;
	evidence: EvidenceView;
	/** What the answer must not be read without. */
	beside: ReturnType<typeof besideFigures>;
}

export async function sheetMaterial(db: Db, trial: Trial, judgeElsewhere?: JudgeElsewhere): Promise<SheetMaterial> {
	const loads = loadsOfTrial(db, trial.id);
	return {
		db,
		trial,
		loads,
		judgement: await judgementForPage(db, trial, loads, judgeElsewhere),
		evidence: evidenceView(db, trial),
		beside: besideFigures(db, trial, loads)
	};
}
