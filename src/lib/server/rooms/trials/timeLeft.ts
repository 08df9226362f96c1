/** How long a trial will probably take still, with what the labs have before it. */
import type { Db } from '../../base/db/connection';
import { countOpenLoads } from '../../base/queue/jobs';
import type { Trial } from './trial';
import { loadsAhead, lastStartMs } from './queries/timeLeft';
import { meanLabMs, recentLabMs } from '../loads/view';

/** A first guess of what a load takes, ms, until the trial has loads of its own. */
const GUESSED_LOAD_MS = 9000;

/** Time until the last load of a trial has probably ended, ms. */
export function timeLeftMs(db: Db, trial: Pick<Trial, 'id' | 'progress'>): number {
	const usualMs = recentLabMs(db) ?? GUESSED_LOAD_MS;
	const open = trial.progress.total - trial.progress.done;
	if (open === 0) return 0;
	const workMs = open * (meanLabMs(db, trial.id) ?? usualMs) + loadsAhead(db, trial.id, open) * usualMs;
	return Math.max(workMs, lastStartMs(db, trial.id));
}

/** Whether something else is before a trial that could be put first. */
export function canBeFirst(db: Db, { id, status, progress }: Pick<Trial, 'id' | 'status' | 'progress'>): boolean {
	if (status !== 'queued' && status !== 'running') return false;
	return loadsAhead(db, id, progress.total - progress.done) > 0;
}

/** What a load takes here, and what the labs have before them: for the cost of a trial that is not made yet, ms. */
export function labLoad(db: Db): { loadMs: number; queuedMs: number } {
	const loadMs = recentLabMs(db) ?? GUESSED_LOAD_MS;
	return { loadMs, queuedMs: countOpenLoads(db) * loadMs };
}
