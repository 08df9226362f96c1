/** Rows of audits, and where their loads belong. */
import type { AuditDesign } from '$core/audits/audit';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export type AuditStatus = 'running' | 'done' | 'stopped';

export interface Audit {
	id: number;
	clientId: number | null;
	againOf: number | null;
	design: AuditDesign;
	status: AuditStatus;
	createdAt: string;
	endedAt: string | null;
}

interface AuditRow {
	id: number;
	client_id: number | null;
	again_of: number | null;
	design: string;
	status: AuditStatus;
	created_at: string;
	ended_at: string | null;
}

const asAudit = (row: AuditRow): Audit => ({
	id: row.id,
	clientId: row.client_id,
	againOf: row.again_of,
	design: JSON.parse(row.design) as AuditDesign,
	status: row.status,
	createdAt: row.created_at,
	endedAt: row.ended_at
});

export function insertAudit(
	db: Db,
	{ clientId, againOf, design }: Pick<Audit, 'clientId' | 'againOf' | 'design'>
): number {
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO audit (client_id, again_of, design, status, created_at)
			VALUES (@clientId, @againOf, @design, 'running', @now)`
	).run({ clientId, againOf, design: JSON.stringify(design), now: nowIso() });
	return Number(lastInsertRowid);
}

/** One that was made elsewhere and is over. @returns its id */
export function importedAudit(
	db: Db,
	{ clientId, againOf, design }: Pick<Audit, 'clientId' | 'againOf' | 'design'>
): number {
	const id = insertAudit(db, { clientId, againOf, design });
	endAudit(db, id, 'done');
	return id;
}

export const auditTimes = (db: Db, { id, createdAt, endedAt }: { id: number; createdAt: string; endedAt: string }) =>
	sql(db, 'UPDATE audit SET created_at = ?, ended_at = ? WHERE id = ?').run(createdAt, endedAt, id);

export function findAudit(db: Db, id: number): Audit | null {
	const row = sql<AuditRow>(db, 'SELECT * FROM audit WHERE id = ?').get(id);
	return row ? asAudit(row) : null;
}

/** Newest first. */
export function listAudits(db: Db, clientId: number | null, limit: number, offset = 0): Audit[] {
	return sql<AuditRow>(
		db,
		`SELECT * FROM audit WHERE @clientId IS NULL OR client_id = @clientId ORDER BY id DESC LIMIT @limit OFFSET @offset`
	)
		.all({ clientId, limit, offset })
		.map(asAudit);
}

export const countAudits = (db: Db, clientId: number | null): number =>
	sql<{ n: number }>(db, 'SELECT count(*) AS n FROM audit WHERE @clientId IS NULL OR client_id = @clientId').get({
		clientId
	})!.n;

export const endAudit = (db: Db, id: number, status: AuditStatus): number =>
	sql(db, `UPDATE audit SET status = ?, ended_at = ? WHERE id = ? AND status = 'running'`).run(status, nowIso(), id)
		.changes;

export const deleteAuditRow = (db: Db, id: number): number => sql(db, 'DELETE FROM audit WHERE id = ?').run(id).changes;

export interface AuditSlot {
	jobId: number;
	auditId: number;
	page: number;
	condition: string;
	round: number;
	retry: number;
}

const SLOT =
	'SELECT job_id AS jobId, audit_id AS auditId, page, condition_id AS condition, round, retry FROM audit_load';

export function insertAuditSlot(db: Db, slot: AuditSlot): void {
	sql(
		db,
		`INSERT INTO audit_load (job_id, audit_id, page, condition_id, round, retry)
			VALUES (@jobId, @auditId, @page, @condition, @round, @retry)`
	).run(slot);
}

export const slotOfAuditJob = (db: Db, jobId: number): AuditSlot | null =>
	sql<AuditSlot>(db, `${SLOT} WHERE job_id = ?`).get(jobId) ?? null;

/** Jobs that have not begun. @returns how many there were */
export function cancelWaiting(db: Db, auditId: number): number {
	return sql(
		db,
		`UPDATE job SET status = 'cancelled' WHERE subject_kind = 'audit' AND subject_id = ? AND status = 'queued'
			AND kind = 'load'`
	).run(auditId).changes;
}

/** Whether something of an audit waits to be worked out, or is. */
export const hasOpenDerive = (db: Db, auditId: number, what: 'findings' | 'savings'): boolean =>
	sql(
		db,
		`SELECT 1 FROM job WHERE kind = 'derive' AND subject_kind = 'audit' AND subject_id = ? AND "order" = ?
			AND status IN ('queued', 'leased')`
	).get(auditId, JSON.stringify(what)) !== undefined;

export interface AuditedLoad {
	load: number;
	page: number;
	condition: string;
	round: number;
	status: 'ok' | 'failed';
	isDisturbed: boolean;
	isExcluded: boolean;
}

/** Loads of an audit, in the order of its pages. */
export function loadsOfAudit(db: Db, auditId: number): AuditedLoad[] {
	return sql<Omit<AuditedLoad, 'isDisturbed' | 'isExcluded'> & { disturbed: number; excluded: string | null }>(
		db,
		`SELECT load.id AS load, audit_load.page, audit_load.condition_id AS condition, audit_load.round, status, disturbed,
			excluded FROM audit_load JOIN load ON load.job_id = audit_load.job_id
			WHERE audit_id = ? ORDER BY audit_load.page, audit_load.condition_id, audit_load.round, load.id`
	)
		.all(auditId)
		.map(({ disturbed, excluded, ...load }) => ({
			...load,
			isDisturbed: disturbed === 1,
			isExcluded: excluded !== null
		}));
}

/** Jobs by whether they are over. */
export function progressOfAudit(db: Db, auditId: number): { done: number; total: number } {
	return sql<{ done: number; total: number }>(
		db,
		`SELECT coalesce(sum(job.status = 'done'), 0) AS done, coalesce(sum(job.status <> 'cancelled'), 0) AS total
			FROM audit_load JOIN job ON job.id = job_id WHERE audit_id = ?`
	).get(auditId)!;
}

/** Over, and not looked at under today's rules. */
export const auditsWithoutFindings = (db: Db, version: string): number[] =>
	sql<{ id: number }>(
		db,
		`SELECT id FROM audit WHERE status <> 'running' AND NOT EXISTS (SELECT 1 FROM derived
			WHERE subject_kind = 'audit' AND subject_id = audit.id AND kind = 'findings' AND version = ?)
			AND NOT EXISTS (SELECT 1 FROM job WHERE kind = 'derive' AND subject_kind = 'audit' AND subject_id = audit.id
			AND "order" = '"findings"' AND status IN ('queued', 'leased')) ORDER BY id`
	)
		.all(version)
		.map(({ id }) => id);

/** The newest that is over and repeats, or is repeated by, nothing newer: what a client's work looks at. */
export const newestAudit = (db: Db, clientId: number): number | null =>
	sql<{ id: number }>(
		db,
		`SELECT id FROM audit WHERE client_id = ? AND status <> 'running' ORDER BY id DESC LIMIT 1`
	).get(clientId)?.id ?? null;
