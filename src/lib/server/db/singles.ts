/** Loads outside the rounds of a trial: one page, once, with its own conditions and steps. */
import { completeConditions, type Conditions } from '$core/load/conditions';
import type { Step } from '$core/load/steps';
import { nowIso, sql, type Db } from './connection';
import { leaseEnd } from './jobs';

export interface Single {
	id: number;
	clientId: number | null;
	url: string;
	conditions: Conditions;
	steps: Step[];
	trialId: number | null;
	armId: number | null;
	status: 'queued' | 'leased' | 'done';
	attempts: number;
	createdAt: string;
	loadId: number | null;
}

interface Row {
	id: number;
	client_id: number | null;
	url: string;
	conditions: string;
	steps: string;
	trial_id: number | null;
	arm_id: number | null;
	status: Single['status'];
	attempts: number;
	created_at: string;
	load_id: number | null;
}

const asSingle = (row: Row): Single => ({
	id: row.id,
	clientId: row.client_id,
	url: row.url,
	conditions: completeConditions(JSON.parse(row.conditions) as Conditions),
	steps: JSON.parse(row.steps) as Step[],
	trialId: row.trial_id,
	armId: row.arm_id,
	status: row.status,
	attempts: row.attempts,
	createdAt: row.created_at,
	loadId: row.load_id
});

export type NewSingle = Pick<Single, 'clientId' | 'url' | 'conditions' | 'steps'> &
	Partial<Pick<Single, 'trialId' | 'armId'>>;

export function insertSingle(
	db: Db,
	{ clientId, url, conditions, steps, trialId = null, armId = null }: NewSingle
): number {
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO single (client_id, url, conditions, steps, trial_id, arm_id, created_at) VALUES (?, ?, ?, ?, ?, ?, ?)'
	).run(clientId, url, JSON.stringify(conditions), JSON.stringify(steps), trialId, armId, nowIso());
	return Number(lastInsertRowid);
}

export function findSingle(db: Db, id: number): Single | null {
	const row = sql<Row>(db, 'SELECT * FROM single WHERE id = ?').get(id);
	return row ? asSingle(row) : null;
}

/** Newest first. */
export function listSingles(db: Db, { open = false, trialId = null as number | null } = {}): Single[] {
	return sql<Row>(
		db,
		"SELECT * FROM single WHERE (@open = 0 OR status <> 'done') AND (@trialId IS NULL OR trial_id = @trialId) ORDER BY id DESC LIMIT 200"
	)
		.all({ open: Number(open), trialId })
		.map(asSingle);
}

export function leaseSingle(db: Db, owner: string): Single | null {
	return db
		.transaction(() => {
			const row = sql<Row>(db, "SELECT * FROM single WHERE status = 'queued' ORDER BY id LIMIT 1").get();
			if (!row) return null;
			sql(
				db,
				"UPDATE single SET status = 'leased', lease_owner = ?, lease_until = ?, attempts = attempts + 1 WHERE id = ?"
			).run(owner, leaseEnd(nowIso()), row.id);
			return { ...asSingle(row), attempts: row.attempts + 1 };
		})
		.immediate();
}

/** @returns false when the lease was lost in the meantime */
export function finishSingle(db: Db, id: number, owner: string, loadId: number): boolean {
	return (
		sql(
			db,
			"UPDATE single SET status = 'done', load_id = ? WHERE id = ? AND lease_owner = ? AND status = 'leased'"
		).run(loadId, id, owner).changes === 1
	);
}

/** Give back leases of other labs. */
export function releaseSingles(db: Db, owner: string): void {
	sql(db, "UPDATE single SET status = 'queued', lease_owner = NULL WHERE status = 'leased' AND lease_owner <> ?").run(
		owner
	);
}

/** @returns false when the lease is no longer this lab's */
export function renewSingle(db: Db, id: number, owner: string): boolean {
	const renewed = sql(db, "UPDATE single SET lease_until = ? WHERE id = ? AND lease_owner = ? AND status = 'leased'");
	return renewed.run(leaseEnd(nowIso()), id, owner).changes === 1;
}

/** Give back what this lab holds. @param countAttempt false when the lab, not the load, is why it ends */
export function giveSinglesBack(db: Db, owner: string, countAttempt = true): void {
	sql(
		db,
		`UPDATE single SET status = 'queued', lease_owner = NULL, attempts = max(0, attempts - @back)
			WHERE status = 'leased' AND lease_owner = @owner`
	).run({ owner, back: countAttempt ? 0 : 1 });
}

/** @returns whether it was still waiting */
export function dropSingle(db: Db, id: number): boolean {
	return sql(db, "DELETE FROM single WHERE id = ? AND status = 'queued'").run(id).changes === 1;
}

/** How many are under way, and the newest load that came of one. */
export function singlesNow(db: Db): { open: number; leased: number; newest: number } {
	return sql<{ open: number; leased: number; newest: number }>(
		db,
		"SELECT coalesce(sum(status <> 'done'), 0) AS open, coalesce(sum(status = 'leased'), 0) AS leased, coalesce(max(load_id), 0) AS newest FROM single"
	).get()!;
}
