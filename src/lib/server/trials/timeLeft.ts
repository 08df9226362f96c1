/** How long a trial will probably take still. */
import type { Db } from '../db/connection';
import { meanLabMs, recentLabMs } from '../loads/loads';
import { countOpenLoads } from '../work/jobs';
import type { Trial } from './trial';

/** A first guess of what a load takes, ms, until the trial has loads of its own. */
const GUESSED_LOAD_MS = 9000;

/** Time that the open loads of a trial will probably take, ms. */
export function timeLeftMs(db: Db, trial: Pick<Trial, 'id' | 'progress'>): number {
	const open = trial.progress.total - trial.progress.done;
	return open * (meanLabMs(db, trial.id) ?? GUESSED_LOAD_MS);
}

/** What a load takes here, and what the labs have before them: for the cost of a trial that is not made yet, ms. */
export function labLoad(db: Db): { loadMs: number; queuedMs: number } {
	const loadMs = recentLabMs(db) ?? GUESSED_LOAD_MS;
	return { loadMs, queuedMs: countOpenLoads(db) * loadMs };
}
