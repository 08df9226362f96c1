/** Opening the database: pragmas, and migrations that only go forward. */
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { ROOT } from '../settings';

export type Db = Database.Database;

const MIGRATIONS = join(ROOT, 'src/lib/server/db/migrations');

/** @throws Error in words when the database was written by a newer Zafra */
export function openDatabase(folder: string): Db {
	mkdirSync(folder, { recursive: true });
	const db = new Database(join(folder, 'zafra.db'), { timeout: 10_000 });
	db.pragma('journal_mode = WAL');
	db.pragma('synchronous = NORMAL');
	migrate(db);
	db.pragma('foreign_keys = ON');
	return db;
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
			if (broken.length) throw new Error(`The migration ${file} would leave ${broken.length} rows without what they belong to; nothing was changed.`);
			db.pragma(`user_version = ${index + 1}`);
		});
		step.immediate();
	}
}

/** Statements are prepared once per database and text. */
const prepared = new WeakMap<Db, Map<string, Database.Statement>>();

export function sql<Row = unknown>(db: Db, text: string): Database.Statement<unknown[], Row> {
	let statements = prepared.get(db);
	if (!statements) prepared.set(db, (statements = new Map()));
	let statement = statements.get(text);
	if (!statement) statements.set(text, (statement = db.prepare(text)));
	return statement as Database.Statement<unknown[], Row>;
}

export function nowIso(): string {
	return new Date().toISOString();
}
