/** What the lab is doing now, for the line above every screen, for health, and for server-sent events. */
import type { Db } from './db/connection';
import { findJob } from './db/jobs';
import { isAlive, readLabState } from './db/labState';
import { singlesNow } from './db/singles';
import { findTrial, listTrials } from './db/trials';
import { timeLeftMs } from './queue/answer';
import { findChromium } from '../../lab/browser/find';

export interface LabNow {
	state: 'idle' | 'busy' | 'off';
	/** What hinders the lab, in words. */
	problem: string | null;
	trialId: number | null;
	question: string | null;
	/** "With chat, Phone, round 3 of 10" */
	doing: string | null;
	timeLeftMs: number | null;
}

export function labNow(db: Db): LabNow {
	const state = readLabState(db);
	const off: LabNow = { state: 'off', problem: null, trialId: null, question: null, doing: null, timeLeftMs: null };
	const missing = findChromium() ? null : 'Chromium was not found. Install it with: apt-get install chromium';
	if (!state || !isAlive(state)) return { ...off, problem: missing };
	const idle: LabNow = { ...off, state: 'idle', problem: missing ?? state.problem };
	const job = state.jobId === null ? null : findJob(db, state.jobId);
	const trial = job && findTrial(db, job.trialId);
	if (state.state === 'idle' || !job || !trial) return { ...idle, state: state.state };
	const arm = trial.design.arms.find((one) => one.id === job.armId);
	const conditions = trial.design.conditions.find((one) => one.id === job.conditionId);
	const round = job.settle ? 'waiting for the page to be stable' : job.warmup ? `warm-up ${job.round} of ${trial.design.warmups}` : `round ${job.round} of ${trial.design.rounds}`;
	return {
		...idle,
		state: 'busy',
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

/** Everything that pages follow while they are open. */
export function snapshot(db: Db): Snapshot {
	const open = listTrials(db).slice(0, 50);
	return {
		lab: labNow(db),
		singles: singlesNow(db),
		trials: open.map((trial) => ({
			id: trial.id,
			status: trial.status,
			...trial.progress,
			timeLeftMs: trial.status === 'running' || trial.status === 'queued' ? timeLeftMs(db, trial) : 0
		}))
	};
}
