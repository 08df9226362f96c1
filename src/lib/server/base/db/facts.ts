/** Facts about the database itself, such as whether it holds the demonstration. */
import { sql, type Db } from './connection';

export function readFact(db: Db, name: string): string | null {
	return sql<{ value: string }>(db, 'SELECT value FROM fact WHERE name = ?').get(name)?.value ?? null;
}

export function writeFact(db: Db, name: string, value: string): void {
	sql(db, 'INSERT OR REPLACE INTO fact (name, value) VALUES (?, ?)').run(name, value);
}
