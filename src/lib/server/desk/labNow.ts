/** What the labs are doing now, for the line above every screen, for health, and for server-sent events. */
import { publicStatus } from '$core/trial/design/status';
import { describeReading, describeTrialLoad, LONE_LOAD } from '$core/wording/doing';
import { findChromium } from '../../../lab/browser/find';
import type { Db } from '../base/db/connection';
import { countRequests } from '../rooms/loads/requested';
import { timeLeftMs } from '../rooms/trials/timeLeft';
import { findTrial } from '../rooms/trials/trial';
import { findJob, type Job } from '../base/queue/jobs';
import { isAlive, isStuck } from '../rooms/labs/labs';
import { trialCounters } from '../rooms/trials/view';
import { readingProgress, findReading, findWatch } from '../rooms/watch/view';
import { listLabs, type LabState } from '../rooms/labs/view';

export interface LabNow {
	state: 'idle' | 'busy' | 'off';
	/** What hinders the lab, in words. */
	problem: string | null;
	/** Pages run without Chromium's sandbox. */
	unprotected: boolean;
	trialId: number | null;
	question: string | null;
	/** "With chat, Phone, round 3 of 10" */
	doing: string | null;
	timeLeftMs: number | null;
	/** It loads no page: it asks a site for its pages, or the panel for field data. */
	isGathering: boolean;
}

const MISSING = 'Chromium was not found. Install it with: apt-get install chromium';
const STUCK =
	'The lab has not finished a load within its time. It is ended and started again by itself; restart Zafra if this stays.';

export function labNow(db: Db): LabNow {
	const lab = listLabs(db).find(isAlive);
	const missing = findChromium() ? null : MISSING;
	const off: LabNow = {
		state: 'off',
		problem: missing,
		unprotected: false,
		trialId: null,
		question: null,
		doing: null,
		timeLeftMs: null,
		isGathering: false
	};
	if (!lab) return off;
	const problem = missing ?? (isStuck(lab) ? STUCK : lab.problem);
	return { ...off, state: lab.state, problem, unprotected: lab.sandboxed === false, ...doingOf(db, lab) };
}

function doingOf(db: Db, { state, jobId }: LabState): Partial<LabNow> {
	if (state === 'idle') return {};
	const job = jobId === null ? null : findJob(db, jobId);
	if (job?.kind === 'gather') return { isGathering: true };
	if (job?.subject.kind === 'reading') return doingReading(db, job);
	const trial = job?.slot ? findTrial(db, job.slot.trialId) : null;
	if (!job?.slot || !trial) return { doing: LONE_LOAD };
	return {
		trialId: trial.id,
		question: trial.question,
		doing: describeTrialLoad(trial.design, job.slot, job.kind === 'settle'),
		timeLeftMs: timeLeftMs(db, trial)
	};
}

function doingReading(db: Db, { subject }: Pick<Job, 'subject'>) {
	const reading = findReading(db, subject.id);
	const watch = reading && findWatch(db, reading.watchId);
	const progress = watch && readingProgress(db, watch.id);
	if (!watch || !progress) return { doing: LONE_LOAD };
	return { doing: describeReading(watch.name, progress) };
}

export interface Snapshot {
	lab: LabNow;
	/** Loads outside trials: how many are under way, and the newest that ended. */
	singles: { open: number; leased: number; newest: number };
	trials: { id: number; status: string; done: number; total: number; timeLeftMs: number }[];
}

/** Everything that pages follow while they are open: trials that run or wait, and those that ended last. */
export function snapshot(db: Db): Snapshot {
	return {
		lab: labNow(db),
		singles: countRequests(db),
		trials: trialCounters(db).map((trial) => ({
			...trial,
			status: publicStatus(trial.status),
			timeLeftMs:
				trial.status === 'running' || trial.status === 'queued' ? timeLeftMs(db, { id: trial.id, progress: trial }) : 0
		}))
	};
}
