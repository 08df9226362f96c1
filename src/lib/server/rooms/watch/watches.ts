/** Watches and standings with their pages: rows in, plain objects out. */
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { type WatchKind, type Watch, findWatch } from './queries/watches';

/** @throws NotPossible for one that is not there, or of the other kind */
export function existingWatch(db: Db, id: number, kind: WatchKind): Watch {
	const watch = findWatch(db, id);
	if (watch?.kind !== kind) throw new NotPossible(404, `There is no ${kind} ${id}.`);
	return watch;
}
