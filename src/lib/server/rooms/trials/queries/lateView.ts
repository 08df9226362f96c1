/** Loads that tell what comes late. */
import type { LateFacts, LateKind } from '$core/compare/late/facts';
import { sql, type Db } from '../../../base/db/connection';

export interface LateLoadView {
	/** Of its job. */
	id: number;
	arm: number | null;
	condition: string;
	kind: LateKind;
	status: 'queued' | 'leased' | 'done';
	load: number | null;
	facts: LateFacts | null;
	/** Why nothing was measured; null otherwise. */
	failed: string | null;
}

/** What decides whether a gain is put off. */
export type LateSeen = Pick<LateLoadView, 'arm' | 'condition' | 'kind' | 'facts'>;

interface LateRow {
	arm: number;
	condition: string;
	late: string;
}

/** For lists of many trials: what was seen, newest first, without the jobs and their conditions. */
export function lateSeenOf(db: Db, trialId: number): LateSeen[] {
	const rows = sql<LateRow>(
		db,
		`SELECT subject_id AS arm, "order" ->> '$.conditions.id' AS condition, load.late FROM job
			JOIN load ON load.job_id = job.id
			WHERE subject_kind = 'arm' AND subject_id IN (SELECT id FROM arm WHERE trial_id = ?) AND load.late IS NOT NULL ORDER BY job.id DESC`
	).all(trialId);
	return rows.map(({ arm, condition, late }) => {
		const facts = JSON.parse(late) as LateFacts;
		return { arm, condition, kind: facts.kind, facts };
	});
}
