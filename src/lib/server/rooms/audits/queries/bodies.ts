/** What was worked out of the files of an audit's loads. */
import type { BodyFacts } from '$core/findings/bodyFacts';
import { sql, type Db } from '../../../base/db/connection';

export function insertBodyFacts(db: Db, auditId: number, url: string, facts: BodyFacts): void {
	sql(db, 'INSERT OR REPLACE INTO audit_body (audit_id, url, facts) VALUES (?, ?, ?)').run(
		auditId,
		url,
		JSON.stringify(facts)
	);
}

export function bodyFactsOf(db: Db, auditId: number): Map<string, BodyFacts> {
	const rows = sql<{ url: string; facts: string }>(db, 'SELECT url, facts FROM audit_body WHERE audit_id = ?').all(
		auditId
	);
	return new Map(rows.map(({ url, facts }) => [url, JSON.parse(facts) as BodyFacts]));
}
