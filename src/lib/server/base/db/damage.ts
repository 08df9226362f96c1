/** Whether the database is whole: a page that is damaged in the middle is otherwise met years later, or never. */
import { databaseProblem, type Db } from './connection';

/** Reads all of it: not for a thread that serves. @returns what is wrong, in words; null for one that is whole */
export function findDamage(db: Db): string | null {
	try {
		const [first] = db.pragma('quick_check(1)') as { quick_check: string }[];
		if (!first || first.quick_check === 'ok') return null;
		return `${databaseProblem({ code: 'SQLITE_CORRUPT', message: '' }, db.name)} (${first.quick_check.split('\n')[0]})`;
	} catch (error) {
		return databaseProblem(error, db.name);
	}
}
