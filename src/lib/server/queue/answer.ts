/** The answer of a trial: its judgement, cached, and the shape that the API gives it. */
import { withoutSecrets } from '$core/load/conditions';
import { JUDGE_VERSION, judge } from '$core/trial/judge';
import { roundsOfNextLook } from '$core/trial/looks';
import type { Judgement } from '$core/trial/types';
import type { Db } from '../db/connection';
import { trialWithoutDerived } from '../db/evidence';
import { isAlive, readLabState } from '../db/labState';
import { loadsOfTrial, meanLabMs, stampOfLoads, type LoadSummary } from '../db/loads';
import { findJudgement, findTrial, keepJudgement, type Trial } from '../db/trials';
import { noteEarlierAnswer } from './rejudged';
import { heavily } from '../work/heavy';

/** From the cache when it fits these loads and these rules, else computed and kept. */
export function judgementOf(db: Db, trial: Trial, loads?: readonly LoadSummary[]): Judgement {
	const stamp = stampOfLoads(db, trial.id);
	const known = findJudgement(db, trial.id, JUDGE_VERSION, stamp);
	if (known) return known;
	const judgement = judge(trial.design, loads ?? loadsOfTrial(db, trial.id));
	keepIfPossible(() => {
		noteEarlierAnswer(db, trial.id, judgement);
		keepJudgement(db, trial.id, stamp, judgement);
	});
	return judgement;
}

/**
 * The judgement for a row of a list: the stored one. A list never judges hundreds of trials while its page waits: what is
 * missing is worked out by the lab process; null until then.
 */
export function judgementForList(db: Db, trial: Trial): Judgement | null {
	const known = findJudgement(db, trial.id, JUDGE_VERSION, stampOfLoads(db, trial.id));
	const lab = known ? null : readLabState(db);
	return known ?? (lab && isAlive(lab) ? null : judgementOf(db, trial));
}

/** A folder that may not be written to, or a full disk, takes the cache away and not the answer. */
function keepIfPossible(keep: () => void): void {
	try {
		keep();
	} catch (error) {
		const { code = '' } = error as { code?: string };
		if (!/^SQLITE_(READONLY|BUSY|FULL|IOERR)/.test(code)) throw error;
	}
}

/** Values beyond which judging is left to the lab process, so that pages never wait for it. */
const LIGHT = 400;
const WAIT_MS = 6000;

/**
 * The judgement for a page or the API: a light one is made at once; a heavy one is awaited from the lab process, and
 * made here only when that is not running.
 */
export async function judgementForPage(db: Db, trial: Trial, loads: readonly LoadSummary[]): Promise<Judgement> {
	const { design } = trial;
	const weight = loads.length * (design.kind === 'before-after' && design.arms.some((arm) => arm.reference) ? 20 : 1);
	if (weight > LIGHT) {
		const until = Date.now() + WAIT_MS;
		const stamp = stampOfLoads(db, trial.id);
		while (!findJudgement(db, trial.id, JUDGE_VERSION, stamp)) {
			const lab = readLabState(db);
			if (!lab || !isAlive(lab) || Date.now() > until) break;
			await new Promise((next) => setTimeout(next, 40));
		}
	}
	return weight > LIGHT
		? ((await heavily('judgeTrial', trial.id)) ?? judgementOf(db, trial, loads))
		: judgementOf(db, trial, loads);
}

/** In the thread for heavy work. */
export function judgeTrial(db: Db, id: number): Judgement | null {
	const trial = findTrial(db, id);
	return trial && judgementOf(db, trial);
}

/** A trial whose judgement is missing or out of date; null when there is none. For the lab process. */
export function trialWithoutJudgement(db: Db): number | null {
	return trialWithoutDerived(db, 'judgement', JUDGE_VERSION);
}

/** A first guess of what a load takes, ms, until the trial has loads of its own. */
const GUESSED_LOAD_MS = 9000;

/** Time that the open loads of a trial will probably take. */
export function timeLeftMs(db: Db, trial: Pick<Trial, 'id' | 'progress'>): number {
	const open = trial.progress.total - trial.progress.done;
	return open * (meanLabMs(db, trial.id) ?? GUESSED_LOAD_MS);
}

const isOpen = ({ status }: Trial) => status !== 'done' && status !== 'stopped' && status !== 'failed';

/** `GET /api/trials/:id`. Results are those of the last look: empty before the first. */
export async function trialAnswer(db: Db, trial: Trial) {
	const loads = loadsOfTrial(db, trial.id);
	const { design } = trial;
	const judgement = await judgementForPage(db, trial, loads);
	return {
		id: trial.id,
		question: trial.question,
		kind: design.kind,
		status: trial.status,
		message: trial.message,
		progress: trial.progress,
		arms: design.arms,
		conditions: design.conditions.map(withoutSecrets),
		rounds: design.rounds,
		warmups: design.warmups,
		seed: design.seed,
		primary: design.primary,
		adaptive: design.adaptive ?? false,
		looks: judgement.looks,
		nextLook: isOpen(trial) ? roundsOfNextLook(design) : null,
		recipe: judgement.recipe,
		paused: trial.paused,
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
			excluded: load.excluded,
			startedAt: load.startedAt,
			metrics: load.figures
		})),
		spread: judgement.spread,
		results: judgement.results,
		withoutExcluded: judgement.withoutExcluded
	};
}
