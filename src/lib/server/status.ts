/** What the lab is doing now, for the line above every screen, for health, and for server-sent events. */
import type { Db } from './db/connection';
import { findJob } from './db/jobs';
import { isAlive, isStuck, readLabState } from './db/labState';
import { singlesNow } from './db/singles';
import { findTrial, trialCounters } from './db/trials';
import { timeLeftMs } from './queue/answer';
import { findChromium } from '../../lab/browser/find';

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
}

const MISSING = 'Chromium was not found. Install it with: apt-get install chromium';
const STUCK =
	'The lab has not finished a load within its time. It is ended and started again by itself; restart Zafra if this stays.';

export function labNow(db: Db): LabNow {
	const state = readLabState(db);
	const missing = findChromium() ? null : MISSING;
	const off: LabNow = {
		state: 'off',
		problem: missing,
		unprotected: false,
		trialId: null,
		question: null,
		doing: null,
		timeLeftMs: null
	};
	if (!state || !isAlive(state)) return off;
	const problem = missing ?? (isStuck(state) ? STUCK : state.problem);
	const idle: LabNow = { ...off, state: 'idle', problem, unprotected: state.sandboxed === false };
	if (state.state === 'idle') return idle;
	return {
		...idle,
		state: 'busy',
		...(state.jobId === null ? { doing: 'a load outside a trial' } : doingOf(db, state.jobId))
	};
}

function doingOf(db: Db, jobId: number): Partial<LabNow> {
	const job = findJob(db, jobId);
	const trial = job && findTrial(db, job.trialId);
	if (!job || !trial) return {};
	const arm = trial.design.arms.find((one) => one.id === job.armId);
	const conditions = trial.design.conditions.find((one) => one.id === job.conditionId);
	const loading = job.warmup
		? `warm-up ${job.round} of ${trial.design.warmups}`
		: `round ${job.round} of ${trial.design.rounds}`;
	const round = job.settle ? 'waiting for the page to be stable' : loading;
	return {
		trialId: trial.id,
		question: trial.question,
		doing: `${arm?.name ?? 'a page'}, ${conditions?.name ?? ''}, ${round}`,
		timeLeftMs: timeLeftMs(db, trial)
	};
}

export interface Snapshot {
	lab: LabNow;
	/** Single loads: how many are under way, and the newest that ended. */
	singles: { open: number; leased: number; newest: number };
	trials: { id: number; status: string; done: number; total: number; timeLeftMs: number }[];
}

/** Everything that pages follow while they are open: trials that run or wait, and those that ended last. */
export function snapshot(db: Db): Snapshot {
	return {
		lab: labNow(db),
		singles: singlesNow(db),
		trials: trialCounters(db).map((trial) => ({
			...trial,
			timeLeftMs:
				trial.status === 'running' || trial.status === 'queued' ? timeLeftMs(db, { id: trial.id, progress: trial }) : 0
		}))
	};
}
