/** The judgement of a trial: derived, stored, and made anew when its loads or the rules change. */
import { JUDGE_VERSION, judge } from '$core/trial/judge/judge';
import { ALL_PAGES } from '$core/trial/design/comparisons';
import { hasStages } from '$core/trial/design/kinds';
import type { Judgement } from '$core/trial/types';
import type { Tone } from '$core/wording/headline';
import { ENGLISH } from '$core/wording/words';
import type { Db } from '../../base/db/connection';
import { isAnyLabAlive } from '../labs/labs';
import { findDerived, isDerived, saveDerived } from '../../base/queue/derived';
import { findTrial, type Trial } from './trial';
import { fingerprintOfInputs } from './queries/trial';
import { boardsOf } from './boardView';
import { lateSeenOf } from './queries/lateView';
import { putOffFrom } from './lateView';
import { noteEarlierAnswer } from './queries/rejudged';
import { loadsOfTrial, type LoadSummary } from '../loads/view';

const subjectOf = (id: number) => ({ kind: 'trial', id }) as const;

/** What the answer of a trial comes to: what lists filter by. */
export interface Outcome {
	condition: string;
	arm: number;
	tone: Tone;
}

/** The stored judgement under today's rules, perhaps of an earlier state of the loads; null before the first. */
export function findJudgement(db: Db, id: number): { body: Judgement; isOld: boolean } | null {
	return findDerived<Judgement>(db, {
		subject: subjectOf(id),
		kind: 'judgement',
		version: JUDGE_VERSION,
		fingerprint: fingerprintOfInputs(db, id)
	});
}

/** Judge a trial and store it, unless that has been done. */
export function deriveJudgement(db: Db, id: number): void {
	const fingerprint = fingerprintOfInputs(db, id);
	const isCurrent = (kind: 'judgement' | 'outcome') =>
		isDerived(db, { subject: subjectOf(id), kind, version: JUDGE_VERSION, fingerprint });
	if (isCurrent('judgement') && isCurrent('outcome')) return;
	const trial = findTrial(db, id);
	if (trial) judgeAndStore(db, trial, loadsOfTrial(db, id));
}

/** The stored judgement when it fits these loads and these rules, else computed and stored. */
export function judgementOf(db: Db, trial: Trial, loads?: readonly LoadSummary[]): Judgement {
	const stored = findJudgement(db, trial.id);
	return stored && !stored.isOld ? stored.body : judgeAndStore(db, trial, loads ?? loadsOfTrial(db, trial.id));
}

function judgeAndStore(db: Db, trial: Trial, loads: readonly LoadSummary[]): Judgement {
	const fingerprint = fingerprintOfInputs(db, trial.id);
	const judgement = judge(trial.design, loads);
	storeIfPossible(() => {
		noteEarlierAnswer(db, trial.id, judgement);
		saveDerived(db, {
			subject: subjectOf(trial.id),
			kind: 'judgement',
			version: JUDGE_VERSION,
			fingerprint,
			body: judgement
		});
		saveDerived(db, {
			subject: subjectOf(trial.id),
			kind: 'outcome',
			version: JUDGE_VERSION,
			fingerprint,
			body: outcomesOf(db, trial, judgement)
		});
	});
	return judgement;
}

/** As the sheet says it: a gain that comes back later is none. */
function outcomesOf(db: Db, { id, design, question }: Trial, judgement: Judgement): Outcome[] {
	const boards = boardsOf(question, {
		design,
		judgement,
		caveats: [],
		words: ENGLISH,
		putOffOf: putOffFrom(design, lateSeenOf(db, id))
	});
	return boards.flatMap(({ condition, answers, best }) =>
		best
			? [{ condition, arm: ALL_PAGES, tone: best.answer.tone }]
			: answers.map(({ arm, tone }) => ({ condition, arm, tone }))
	);
}

/** A folder that may not be written to, or a full disk, takes the stored copy away and not the answer. */
function storeIfPossible(store: () => void): void {
	try {
		store();
	} catch (error) {
		const { code = '' } = error as { code?: string };
		if (!/^SQLITE_(READONLY|BUSY|FULL|IOERR)/.test(code)) throw error;
	}
}

/**
 * The judgement for a row of a list: the stored one, be it old. A list never judges hundreds of trials while its page
 * waits: what is missing is worked out by the lab process; null until then.
 */
export function judgementForList(db: Db, trial: Trial): Judgement | null {
	return findJudgement(db, trial.id)?.body ?? (isAnyLabAlive(db) ? null : judgementOf(db, trial));
}

/** Judges a trial in a thread of its own. */
export type JudgeElsewhere = (trialId: number) => Promise<Judgement | null>;

/** Values beyond which judging is left to a thread of its own, so that other pages never wait for it. */
const LIGHT = 400;
/** Correcting by a reference page takes so many times longer. */
const REFERENCE_WEIGHT = 20;

/**
 * The judgement for a page or the API. While the trial runs, the one of the last look may be older than the last loads:
 * the lab brings it up to date between two loads. At rest it is made now when it is old.
 */
export async function judgementForPage(
	db: Db,
	trial: Trial,
	loads: readonly LoadSummary[],
	judgeElsewhere?: JudgeElsewhere
): Promise<Judgement> {
	const stored = findJudgement(db, trial.id);
	const isMoving = trial.status === 'running' && stored?.body.looks.length === (trial.design.looks ?? []).length;
	if (stored && (!stored.isOld || isMoving)) return stored.body;
	if (!judgeElsewhere || weightOf(trial, loads) <= LIGHT) return judgementOf(db, trial, loads);
	return (await judgeElsewhere(trial.id)) ?? judgementOf(db, trial, loads);
}

function weightOf({ design }: Trial, loads: readonly LoadSummary[]): number {
	const isCorrected = hasStages(design.kind) && design.arms.some((arm) => arm.reference);
	return loads.length * (isCorrected ? REFERENCE_WEIGHT : 1);
}

/** In the thread for heavy work. */
export function judgeTrial(db: Db, id: number): Judgement | null {
	const trial = findTrial(db, id);
	return trial && judgementOf(db, trial);
}
