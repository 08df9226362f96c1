/** What is not derived under today's rules, or from today's inputs, is queued behind everything else. */
import { JUDGE_VERSION } from '$core/trial/judge';
import { nowIso, sql, type Db } from '../db/connection';
import { EVIDENCE_VERSION } from '../trials/evidence';
import type { DerivedKind } from './derived';
import { PRIORITY } from './jobs';

/** At the start of a lab: what was queued before it is no hurry, and new rules ask for new answers. */
export function queueOutdated(db: Db): void {
	db.transaction(() => {
		sql(db, "UPDATE job SET priority = ? WHERE kind = 'derive' AND status = 'queued'").run(PRIORITY.catchUp);
		queue(db, 'judgement', JUDGE_VERSION, "status NOT IN ('draft', 'queued')");
		queue(db, 'evidence', EVIDENCE_VERSION, "status IN ('waiting', 'done', 'stopped')");
	}).immediate();
}

/** @param which trials have it at all, as SQL */
function queue(db: Db, kind: DerivedKind, version: string, which: string): void {
	sql(
		db,
		`INSERT OR IGNORE INTO job (kind, subject, "order", priority, created_at)
			SELECT 'derive', 'trial:' || trial.id, json_quote(@kind), @priority, @now FROM trial WHERE ${which}
			AND EXISTS (SELECT 1 FROM load WHERE trial_id = trial.id AND warmup = 0)
			AND NOT EXISTS (SELECT 1 FROM derived WHERE subject = 'trial:' || trial.id AND kind = @kind
				AND version = @version AND fingerprint = CAST(trial.inputs AS TEXT))`
	).run({ kind, version, priority: PRIORITY.catchUp, now: nowIso() });
}
