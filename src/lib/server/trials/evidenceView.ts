/** The evidence of a trial as the API gives it. */
import type { Db } from '../db/connection';
import { findEvidence, type Evidence } from './evidence';
import type { Trial } from './queries';

export function evidenceView(db: Db, trial: Trial): Evidence & { pending: boolean } {
	const stored = findEvidence(db, trial.id);
	return { pending: stored === null || stored.isOld, ...(stored?.body ?? { arms: [], films: [] }) };
}
