/** How a trial moves on: a load comes in, a look is due, a stage or the trial ends. */
import type { MeasuredLoad } from '$core/load/record/record';
import { isTooBusy } from '$core/trial/judge/counted';
import { stagesOf } from '$core/trial/design/comparisons';
import { hasStages } from '$core/trial/design/kinds';
import { isLog, MOST_STEPS, stepShare } from '$core/trial/design/log';
import {
	awaitsAddedRounds,
	equalShare,
	isDecided,
	isHopeless,
	isLookDue,
	nextLook,
	stageLook
} from '$core/trial/design/looks';
import type { Look, TrialDesign } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { insertLoad } from '../loads/loads';
import { findRequest } from '../loads/requested';
import { deleteQueuedJob, type Job, type TrialSlot } from '../../base/queue/jobs';
import { NotPossible } from '../../base/refusal';
import type { Subject } from '../../base/subject';
import { judgementOf } from './judgement';
import { awaitLateLoads } from './lateLoads';
import { saveSettling } from './queries/notes';
import { cancelQueuedSlots, countOpenSlots, deleteQueuedSlots, lastStage, wholeRounds } from './queries/slots';
import { retrySlot } from './slots';
import { seenIn } from './seen';
import { conditionsOfTrial, trialOfArm } from './queries/trial';
import { findTrial, type Trial } from './trial';
import { noteNewInputs, setTrialStatus, updateDesign } from './queries/trials';
import { loadsOfTrial } from '../loads/view';

/** Store a load of a trial's round, and move the trial on. In the caller's transaction. @returns the load's id */
export function storeTrialLoad(db: Db, job: Pick<Job, 'id'>, slot: TrialSlot, measured: MeasuredLoad): number {
	const { trialId, conditionId } = slot;
	const conditionsHash = conditionsOfTrial(db, trialId).find(({ id }) => id === conditionId)?.hash ?? null;
	const { design } = findTrial(db, trialId)!;
	const seen = seenIn(design, design.arms.find((arm) => arm.id === slot.armId) ?? {}, measured.record);
	const id = insertLoad(db, { jobId: job.id, slot, conditionId, conditionsHash, clientId: null, seen }, measured);
	if (needsAnotherTry(db, trialId, measured.record)) retrySlot(db, slot);
	settleTrial(db, trialId);
	return id;
}

/**
 * A load that failed or was disturbed is made once more, unless the machine is so busy that the trial counts disturbed
 * loads from now on. Neither looks at the page's figures.
 */
function needsAnotherTry(db: Db, trialId: number, { status, environment }: MeasuredLoad['record']): boolean {
	if (status === 'failed') return true;
	const trial = findTrial(db, trialId)!;
	if (!environment.calm?.disturbed || trial.design.countsDisturbed) return false;
	if (!isTooBusy(loadsOfTrial(db, trialId))) return true;
	updateDesign(db, trial, { countsDisturbed: true });
	return false;
}

/** Store what waiting for a stable page saw, and move the trial on. In the caller's transaction. */
export function storeSettling(db: Db, job: Pick<Job, 'id'>, slot: TrialSlot, result: unknown): void {
	saveSettling(db, job.id, slot, result);
	settleTrial(db, slot.trialId);
}

/** Call off a load that waits; its trial waits for it no longer. @throws NotPossible once it has begun */
export function dropRequest(db: Db, id: number): void {
	db.transaction(() => {
		const request = findRequest(db, id);
		if (!request) throw new NotPossible(404, `There is no single load ${id}.`);
		if (!deleteQueuedJob(db, id)) throw new NotPossible(409, 'That load has begun already and will end by itself.');
		if (request.armId) settleAfterRequest(db, { kind: 'arm', id: request.armId });
	})();
}

/** A load on behalf of an arm came, or was called off: its trial may have waited for nothing else. */
export function settleAfterRequest(db: Db, subject: Subject): void {
	const id = trialOfArm(db, subject);
	if (id === null) return;
	noteNewInputs(db, id);
	const trial = findTrial(db, id);
	if (trial && (trial.status === 'running' || trial.status === 'queued') && lastStage(db, trial.id) >= 0)
		settleTrial(db, trial.id);
}

/** There is no room for further loads: the trial stops with what it has, and can go on later. */
export function stopForFullDisk(db: Db, id: number): void {
	cancelQueuedSlots(db, id);
	setTrialStatus(db, id, 'stopped', 'disk-full');
}

/** After a load: a look where one is due; a trial without open jobs is done, or waits for its next stage. */
export function settleTrial(db: Db, id: number): void {
	const trial = findTrial(db, id);
	if (!trial || trial.status === 'paused' || trial.status === 'stopped') return;
	if (countOpenSlots(db, id) > 0 && !endsEarly(db, trial)) return;
	// The answer comes with what it must not be read without.
	if (hasGoodLoad(db, id) && awaitLateLoads(db, findTrial(db, id)!)) return;
	takeLook(db, findTrial(db, id)!, awaitsAddedRounds(trial.design) ? 'added' : 'plan');
	if (hasStages(trial.design.kind) && lastStage(db, id) < lastPossibleStage(trial.design))
		setTrialStatus(db, id, 'waiting');
	else if (hasGoodLoad(db, id)) setTrialStatus(db, id, 'done');
	else setTrialStatus(db, id, 'failed', 'no-load-succeeded');
}

/** A log waits for its next step until it is ended, or has all that it may have. */
const lastPossibleStage = (design: TrialDesign): number => (isLog(design) ? MOST_STEPS : stagesOf(design).length - 1);

function hasGoodLoad(db: Db, id: number): boolean {
	return loadsOfTrial(db, id).some((load) => !load.warmup && load.status === 'ok');
}

/**
 * A look at what has been measured: from now on there is an answer as of these rounds. Looking twice at the same adds
 * none.
 */
export function takeLook(db: Db, trial: Trial, by: Look['by']): Trial {
	const { design, id } = trial;
	const look = hasStages(design.kind) ? lookAtStage(db, trial, by) : nextLook(design, wholeRounds(db, id, 0), by);
	const isNew =
		look !== null &&
		look.rounds > 0 &&
		!design.looks?.some((candidate) => candidate.stage === look.stage && candidate.rounds >= look.rounds);
	if (!isNew) return trial;
	updateDesign(db, trial, { looks: [...(design.looks ?? []), look] });
	return findTrial(db, id)!;
}

/** The first stage is compared with nothing: its figures may be seen at any time. */
function lookAtStage(db: Db, { id, design }: Trial, by: Look['by']): Look | null {
	const stage = lastStage(db, id);
	if (stage < 1) return null;
	return stageLook(design, { stage, share: shareOfStage(design, stage), rounds: wholeRounds(db, id, stage), by });
}

/** What the comparisons of a stage may spend together. */
function shareOfStage(design: TrialDesign, stage: number): number {
	return isLog(design) ? stepShare(design, { stage, against: 'both' }) : equalShare(stagesOf(design).length);
}

/** At a planned look: when all is decided, or nothing open has hope, the rest of the loads is not needed. */
function endsEarly(db: Db, trial: Trial): boolean {
	const { design, id } = trial;
	const rounds = wholeRounds(db, id, 0);
	if (!isLookDue(design, rounds) || rounds >= design.rounds) return false;
	const judgement = judgementOf(db, takeLook(db, trial, 'plan'));
	if (!isDecided(judgement) && !isHopeless(judgement)) return false;
	deleteQueuedSlots(db, id);
	return countOpenSlots(db, id) === 0;
}
