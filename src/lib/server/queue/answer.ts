/** The answer of a trial: its judgement, cached, and the shape that the API gives it. */
import { JUDGE_VERSION, judge } from '../../../core/trial/judge';
import type { Judgement } from '../../../core/trial/types';
import type { Db } from '../db/connection';
import { loadsOfTrial, meanLabMs, stampOfLoads, type LoadSummary } from '../db/loads';
import { findJudgement, keepJudgement, type Trial } from '../db/trials';

/** From the cache when it fits these loads and these rules, else computed and kept. */
export function judgementOf(db: Db, trial: Trial, loads?: readonly LoadSummary[]): Judgement {
	const stamp = stampOfLoads(db, trial.id);
	const known = findJudgement(db, trial.id, JUDGE_VERSION, stamp);
	if (known) return known;
	const judgement = judge(trial.design, loads ?? loadsOfTrial(db, trial.id));
	keepJudgement(db, trial.id, stamp, judgement);
	return judgement;
}

/** A first guess of what a load takes, ms, until the trial has loads of its own. */
const GUESSED_LOAD_MS = 9000;

/** Time that the open loads of a trial will probably take. */
export function timeLeftMs(db: Db, trial: Trial): number {
	const open = trial.progress.total - trial.progress.done;
	return open * (meanLabMs(db, trial.id) ?? GUESSED_LOAD_MS);
}

/** `GET /api/trials/:id`. */
export function trialAnswer(db: Db, trial: Trial) {
	const loads = loadsOfTrial(db, trial.id);
	const { design } = trial;
	return {
		id: trial.id,
		question: trial.question,
		kind: design.kind,
		status: trial.status,
		message: trial.message,
		progress: trial.progress,
		arms: design.arms,
		conditions: design.conditions,
		rounds: design.rounds,
		warmups: design.warmups,
		seed: design.seed,
		primary: design.primary,
		loads: loads.map((load) => ({
			id: load.id,
			arm: load.armId,
			stage: load.stage,
			round: load.round,
			condition: load.conditionId,
			warmup: load.warmup,
			status: load.status,
			reason: load.reason,
			capped: load.capped,
			startedAt: load.startedAt,
			metrics: load.figures
		})),
		results: judgementOf(db, trial, loads).results
	};
}
