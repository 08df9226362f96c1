/** What waits for a lab, and what was derived under other rules or from other inputs. */
import { nowIso, sql, type Db } from '../base/db/connection';
import type { DerivedKind } from '../base/queue/derived';
import { PRIORITY } from '../base/queue/jobs';

/** What was queued to be derived is no hurry. */
export function putBehind(db: Db): void {
	sql(db, "UPDATE job SET priority = ? WHERE kind = 'derive' AND status = 'queued'").run(PRIORITY.catchUp);
}

/** Watches and standings with readings whose history is not of these versions, and is not queued. */
export const withOldHistory = (db: Db, versions: { history: string; ranks: string }): number[] =>
	sql<{ id: number }>(
		db,
		`SELECT id FROM watch WHERE EXISTS (SELECT 1 FROM reading WHERE watch_id = watch.id AND state = 'done')
			AND NOT EXISTS (SELECT 1 FROM derived WHERE subject_kind = 'watch' AND subject_id = watch.id
				AND version = CASE kind WHEN 'watch' THEN @history ELSE @ranks END)
			AND NOT EXISTS (SELECT 1 FROM job WHERE subject_kind = 'watch' AND subject_id = watch.id AND status = 'queued')`
	)
		.all(versions)
		.map(({ id }) => id);

interface Outdated {
	/** What is to be derived. */
	what: DerivedKind;
	/** What must be there when that has been done. */
	missing: DerivedKind;
	version: string;
	/** Which trials have it at all, as SQL. */
	which: string;
}

/** Queue it for trials that lack it behind everything else. */
export function queueMissing(db: Db, { what, missing, version, which }: Outdated): void {
	sql(
		db,
		`INSERT OR IGNORE INTO job (kind, subject_kind, subject_id, "order", priority, created_at)
			SELECT 'derive', 'trial', trial.id, json_quote(@what), @priority, @now FROM trial WHERE ${which}
			AND EXISTS (SELECT 1 FROM load WHERE trial_id = trial.id AND warmup = 0)
			AND NOT EXISTS (SELECT 1 FROM derived WHERE subject_kind = 'trial' AND subject_id = trial.id AND kind = @missing
				AND version = @version AND fingerprint = CAST(trial.inputs AS TEXT))`
	).run({ what, missing, version, priority: PRIORITY.catchUp, now: nowIso() });
}
