/** Opening the database: pragmas, and migrations that only go forward. */
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { builtOr } from '../built';
import { adoptEarlierData } from './adopt';
import { defineFunctions } from './functions';
import type { Db } from './statements';

export { nowIso, sql, type Db } from './statements';

const MIGRATIONS = builtOr('migrations', 'src/lib/server/base/db/migrations');

/** The lab waits for a lock this long; web, whose pages wait with it, much shorter. */
export const LAB_WAITS_MS = 10_000;
export const WEB_WAITS_MS = 1000;

/** @throws Error in words when the folder cannot be used, or was written by a newer Zafra */
export function openDatabase(folder: string, waitMs = LAB_WAITS_MS): Db {
	const db = openFile(folder);
	db.pragma('synchronous = NORMAL');
	defineFunctions(db);
	migrate(db);
	db.pragma('foreign_keys = ON');
	adoptEarlierData(db);
	db.pragma(`busy_timeout = ${waitMs}`);
	return db;
}

function openFile(folder: string): Db {
	const file = join(folder, 'zafra.db');
	try {
		mkdirSync(folder, { recursive: true });
		const db = new Database(file, { timeout: LAB_WAITS_MS });
		db.pragma('journal_mode = WAL');
		return db;
	} catch (error) {
		throw new Error(`The data folder ${folder} cannot be used: ${databaseProblem(error, file)}`, { cause: error });
	}
}

/** What a trouble of the database is, and what to do, in words. */
export function databaseProblem(error: unknown, file: string): string {
	const { code = '', message } = error as { code?: string; message: string };
	if (code === 'SQLITE_CORRUPT' || code === 'SQLITE_NOTADB')
		return `${file} is damaged. Put back a copy of it, or name another folder with ZAFRA_DATA; the damaged file stays as it is.`;
	if (code === 'SQLITE_READONLY' || code === 'EACCES' || code === 'EROFS' || code.startsWith('SQLITE_CANTOPEN'))
		return `this account may not write there. Give it the right to, or name another folder with ZAFRA_DATA.`;
	if (isBusy(error)) return 'another program keeps it locked. Try again when that has ended.';
	return `${message}.`;
}

/** Whether another process holds the database. */
export function isBusy(error: unknown): boolean {
	const { code = '' } = error as { code?: string };
	return code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED');
}

/** Each migration in a transaction of its own; two processes that start at once take turns. */
export function migrate(db: Db, folder = MIGRATIONS): void {
	const files = readdirSync(folder)
		.filter((name) => /^\d{3}-.*\.sql$/.test(name))
		.sort();
	const newest = files.length;
	const reached = () => db.pragma('user_version', { simple: true }) as number;
	if (reached() > newest)
		throw new Error(
			`This data folder was written by a newer Zafra (schema ${reached()}, this one knows ${newest}). Start the newer one, or name another folder with ZAFRA_DATA.`
		);
	// A table that is made anew must not take its dependants along when the old one goes; each step checks at its end.
	db.pragma('foreign_keys = OFF');
	for (const [index, file] of files.entries()) {
		const step = db.transaction(() => {
			if (reached() > index) return;
			db.exec(readFileSync(join(folder, file), 'utf8'));
			const broken = db.pragma('foreign_key_check') as unknown[];
			if (broken.length)
				throw new Error(
					`The migration ${file} would leave ${broken.length} rows without what they belong to; nothing was changed.`
				);
			db.pragma(`user_version = ${index + 1}`);
		});
		step.immediate();
	}
}
