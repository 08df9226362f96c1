/** Whether the database may have changed, without reading it. */
import { sql, type Db } from './connection';

/**
 * Asks cheaply: SQLite counts the commits of other connections (`data_version`) and the rows that this one changed.
 * @param anywayMs also true after this long
 * @returns a question; true the first time
 */
export function changeMeter(db: Db, anywayMs: number): () => boolean {
	let last = '';
	let at = -Infinity;
	return () => {
		const version = db.pragma('data_version', { simple: true }) as number;
		const own = sql<{ n: number }>(db, 'SELECT total_changes() AS n').get()!.n;
		const now = `${version}/${own}`;
		if (now === last && performance.now() - at < anywayMs) return false;
		last = now;
		at = performance.now();
		return true;
	};
}
