/** How long a trial will probably take still. */
import type { Db } from '../db/connection';
import { meanLabMs } from '../loads/loads';
import type { Trial } from './trial';

/** A first guess of what a load takes, ms, until the trial has loads of its own. */
const GUESSED_LOAD_MS = 9000;

/** Time that the open loads of a trial will probably take, ms. */
export function timeLeftMs(db: Db, trial: Pick<Trial, 'id' | 'progress'>): number {
	const open = trial.progress.total - trial.progress.done;
	return open * (meanLabMs(db, trial.id) ?? GUESSED_LOAD_MS);
}
