/** What is not derived under today's rules, or from today's inputs, is queued behind everything else. */
import { JUDGE_VERSION } from '$core/trial/judge/judge';
import { nowIso, sql, type Db } from '../base/db/connection';
import { RANKS_VERSION } from '../rooms/standings/ranks';
import { EVIDENCE_VERSION } from '../rooms/trials/evidence';
import { HISTORY_VERSION, requestHistory } from '../rooms/watch/history';
import type { DerivedKind } from '../base/queue/derived';
import { PRIORITY } from '../base/queue/jobs';

/** At the start of a lab: what was queued before it is no hurry, and new rules ask for new answers. */
export function queueOutdated(db: Db): void {
	db.transaction(() => {
		sql(db, "UPDATE job SET priority = ? WHERE kind = 'derive' AND status = 'queued'").run(PRIORITY.catchUp);
		const isJudged = "status NOT IN ('draft', 'queued')";
		queue(db, 'judgement', 'judgement', JUDGE_VERSION, isJudged);
		// Judged before lists were filtered by outcomes: judging anew stores both.
		queue(db, 'judgement', 'outcome', JUDGE_VERSION, isJudged);
		queue(db, 'evidence', 'evidence', EVIDENCE_VERSION, "status IN ('waiting', 'done', 'stopped')");
		queueOldHistories(db);
	}).immediate();
}

function queueOldHistories(db: Db): void {
	const old = sql<{ id: number }>(
		db,
		`SELECT id FROM watch WHERE EXISTS (SELECT 1 FROM reading WHERE watch_id = watch.id AND state = 'done')
			AND NOT EXISTS (SELECT 1 FROM derived WHERE subject_kind = 'watch' AND subject_id = watch.id
				AND version = CASE kind WHEN 'watch' THEN @history ELSE @ranks END)
			AND NOT EXISTS (SELECT 1 FROM job WHERE subject_kind = 'watch' AND subject_id = watch.id AND status = 'queued')`
	).all({ history: HISTORY_VERSION, ranks: RANKS_VERSION });
	for (const { id } of old) requestHistory(db, id);
}

/**
 * @param what is to be derived @param missing what must be there when that has been done
 * @param which trials have it at all, as SQL
 */
function queue(db: Db, what: DerivedKind, missing: DerivedKind, version: string, which: string): void {
	sql(
		db,
		`INSERT OR IGNORE INTO job (kind, subject_kind, subject_id, "order", priority, created_at)
			SELECT 'derive', 'trial', trial.id, json_quote(@what), @priority, @now FROM trial WHERE ${which}
			AND EXISTS (SELECT 1 FROM load WHERE trial_id = trial.id AND warmup = 0)
			AND NOT EXISTS (SELECT 1 FROM derived WHERE subject_kind = 'trial' AND subject_id = trial.id AND kind = @missing
				AND version = @version AND fingerprint = CAST(trial.inputs AS TEXT))`
	).run({ what, missing, version, priority: PRIORITY.catchUp, now: nowIso() });
}
