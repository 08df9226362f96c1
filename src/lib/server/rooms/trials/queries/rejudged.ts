/** Trials that were judged under earlier rules: what their answers were then, and what became of them. */
import type { Judgement, ShiftResult, Verdict } from '$core/trial/types';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export interface VerdictChange {
	condition: string;
	arm: number;
	metric: ShiftResult['metric'];
	before: Verdict;
	after: Verdict;
}

export interface Rejudged {
	at: string;
	fromVersion: string;
	fromRecipe: string;
	/** Empty when every verdict stayed. */
	changes: VerdictChange[];
}

/** Judgements before this version did not name their recipe. */
const FIRST_RECIPE = 'zafra-1';

/** Call before a judgement under today's rules replaces the stored one. */
export function noteEarlierAnswer(db: Db, trialId: number, now: Judgement): void {
	const row = sql<{ version: string; body: string }>(
		db,
		"SELECT version, body FROM derived WHERE subject_kind = 'trial' AND subject_id = ? AND kind = 'judgement' AND version <> ?"
	).get(trialId, now.version);
	if (!row || !now.results.length) return;
	const earlier = JSON.parse(row.body) as Pick<Judgement, 'results'> & { recipe?: string };
	const changes = verdictChanges(earlier.results, now.results);
	sql(
		db,
		'INSERT OR IGNORE INTO rejudged (trial_id, at, from_version, from_recipe, changes) VALUES (?, ?, ?, ?, ?)'
	).run(trialId, nowIso(), row.version, earlier.recipe ?? FIRST_RECIPE, JSON.stringify(changes));
}

export function verdictChanges(before: readonly ShiftResult[], after: readonly ShiftResult[]): VerdictChange[] {
	return after
		.filter((result) => result.primary)
		.flatMap((result) => {
			const { condition, arm, metric } = result;
			const was = before.find(
				(earlier) => earlier.condition === condition && earlier.arm === arm && earlier.metric === metric
			);
			return was && was.verdict !== result.verdict
				? [{ condition, arm, metric, before: was.verdict, after: result.verdict }]
				: [];
		});
}

export function findRejudged(db: Db, trialId: number): Rejudged | null {
	const row = sql<{ at: string; from_version: string; from_recipe: string; changes: string }>(
		db,
		'SELECT * FROM rejudged WHERE trial_id = ?'
	).get(trialId);
	return row === undefined
		? null
		: {
				at: row.at,
				fromVersion: row.from_version,
				fromRecipe: row.from_recipe,
				changes: JSON.parse(row.changes) as VerdictChange[]
			};
}
