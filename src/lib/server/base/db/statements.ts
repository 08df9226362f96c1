/** Plain SQL on an open database. */
import type Database from 'better-sqlite3';

export type Db = Database.Database;

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

/** Texts of all statements that were prepared on a database: what a test explains. */
export const preparedOn = (db: Db): string[] => [...(prepared.get(db)?.keys() ?? [])];
