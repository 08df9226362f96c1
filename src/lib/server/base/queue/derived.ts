/** What is derived from loads: kept until its inputs or its rules change, readable while it is old. */
import { sql, type Db } from '../db/connection';
import type { Subject } from '../subject';

export type DerivedKind =
	| 'judgement'
	| 'outcome'
	| 'evidence'
	| 'gathering'
	| 'settling'
	| 'host-look'
	| 'page-types'
	| 'hosts'
	| 'field-gathering'
	| 'history'
	| 'ranks'
	| 'findings'
	| 'savings';

export interface Derived<Body> {
	body: Body;
	/** Its inputs have changed since. */
	isOld: boolean;
}

/** What was derived under other rules is not found. */
export function findDerived<Body>(
	db: Db,
	{ subject, kind, version, fingerprint }: { subject: Subject; kind: DerivedKind; version: string; fingerprint: string }
): Derived<Body> | null {
	const row = sql<{ fingerprint: string; body: string }>(
		db,
		'SELECT fingerprint, body FROM derived WHERE subject_kind = ? AND subject_id = ? AND kind = ? AND version = ?'
	).get(subject.kind, subject.id, kind, version);
	return row ? { body: JSON.parse(row.body) as Body, isOld: row.fingerprint !== fingerprint } : null;
}

/** Whether it is there and fits its inputs, without reading it. */
export function isDerived(
	db: Db,
	{ subject, kind, version, fingerprint }: { subject: Subject; kind: DerivedKind; version: string; fingerprint: string }
): boolean {
	const found = sql(
		db,
		`SELECT 1 FROM derived WHERE subject_kind = ? AND subject_id = ? AND kind = ? AND version = ? AND fingerprint = ?`
	);
	return found.get(subject.kind, subject.id, kind, version, fingerprint) !== undefined;
}

export function saveDerived(
	db: Db,
	{
		subject,
		kind,
		version,
		fingerprint,
		body
	}: { subject: Subject; kind: DerivedKind; version: string; fingerprint: string; body: unknown }
): void {
	sql(
		db,
		`INSERT INTO derived (subject_kind, subject_id, kind, version, fingerprint, body) VALUES (?, ?, ?, ?, ?, ?)
			ON CONFLICT (subject_kind, subject_id, kind) DO UPDATE
			SET version = excluded.version, fingerprint = excluded.fingerprint, body = excluded.body`
	).run(subject.kind, subject.id, kind, version, fingerprint, JSON.stringify(body));
}
