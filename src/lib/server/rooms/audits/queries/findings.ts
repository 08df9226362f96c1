/** Rows of the worklist: a resource under a rule, and what became of it. */
import type { Cause } from '$core/findings/causes';
import type { FindingState } from '$core/findings/worklist';
import type { RuleId } from '$core/findings/finding';
import { nowIso, sql, type Db } from '../../../base/db/connection';

export interface WorklistRow {
	id: number;
	clientId: number;
	rule: RuleId;
	resource: string;
	auditId: number | null;
	cause: Cause;
	state: FindingState;
	owner: string;
	note: string;
	question: string;
	firstSeenAt: string;
	changedAt: string;
}

const COLUMNS = `id, client_id AS clientId, rule, resource, audit_id AS auditId, cause, state, owner, note, question,
	first_seen_at AS firstSeenAt, changed_at AS changedAt`;

type Stored = Omit<WorklistRow, 'cause'> & { cause: string };
const asRow = ({ cause, ...row }: Stored): WorklistRow => ({ ...row, cause: JSON.parse(cause) as Cause });

export interface WorklistFilter {
	clientId: number | null;
	state?: string;
	rule?: string;
	/** Part of the resource's address or selector. */
	words?: string;
	/** Number of a page of the sites. */
	page?: number | null;
}

const WHERE = `(@clientId IS NULL OR client_id = @clientId) AND (@state = '' OR state = @state)
	AND (@rule = '' OR rule = @rule) AND (@words = '' OR instr(lower(resource), @words))
	AND (@page IS NULL OR EXISTS (SELECT 1 FROM json_each(cause, '$.pageIds') WHERE value = @page))`;
const valuesOf = ({ clientId, state = '', rule = '', words = '', page = null }: WorklistFilter) => ({
	clientId,
	state,
	rule,
	words: words.trim().toLowerCase(),
	page
});

/** Dearest first; what is over comes last. */
export function listFindings(db: Db, filter: WorklistFilter, limit: number, offset = 0): WorklistRow[] {
	return sql<Stored>(
		db,
		`SELECT ${COLUMNS} FROM finding WHERE ${WHERE}
			ORDER BY state IN ('seen-done', 'not-worth'), cause ->> 'weight' DESC, id LIMIT @limit OFFSET @offset`
	)
		.all({ ...valuesOf(filter), limit, offset })
		.map(asRow);
}

/** What is still to be done, dearest first. */
export const openLines = (db: Db, clientId: number, limit: number): WorklistRow[] =>
	sql<Stored>(
		db,
		`SELECT ${COLUMNS} FROM finding WHERE client_id = ? AND state NOT IN ('seen-done', 'not-worth')
			ORDER BY cause ->> 'weight' DESC, id LIMIT ?`
	)
		.all(clientId, limit)
		.map(asRow);

export const countFindings = (db: Db, filter: WorklistFilter): number =>
	sql<{ n: number }>(db, `SELECT count(*) AS n FROM finding WHERE ${WHERE}`).get(valuesOf(filter))!.n;

export const statesOf = (db: Db, clientId: number | null): { state: FindingState; n: number }[] =>
	sql<{ state: FindingState; n: number }>(
		db,
		'SELECT state, count(*) AS n FROM finding WHERE @clientId IS NULL OR client_id = @clientId GROUP BY state'
	).all({ clientId });

export const rulesSeen = (db: Db, clientId: number | null): RuleId[] =>
	sql<{ rule: RuleId }>(
		db,
		'SELECT DISTINCT rule FROM finding WHERE @clientId IS NULL OR client_id = @clientId ORDER BY rule'
	)
		.all({ clientId })
		.map(({ rule }) => rule);

export function findFinding(db: Db, id: number): WorklistRow | null {
	const row = sql<Stored>(db, `SELECT ${COLUMNS} FROM finding WHERE id = ?`).get(id);
	return row ? asRow(row) : null;
}

export function findingOf(db: Db, clientId: number, rule: string, resource: string): WorklistRow | null {
	const row = sql<Stored>(db, `SELECT ${COLUMNS} FROM finding WHERE client_id = ? AND rule = ? AND resource = ?`).get(
		clientId,
		rule,
		resource
	);
	return row ? asRow(row) : null;
}

export function insertFinding(db: Db, clientId: number, auditId: number, cause: Cause): void {
	sql(
		db,
		`INSERT INTO finding (client_id, rule, resource, audit_id, cause, first_seen_at, changed_at)
			VALUES (@clientId, @rule, @resource, @auditId, @cause, @now, @now)`
	).run({
		clientId,
		rule: cause.rule,
		resource: cause.resource.key,
		auditId,
		cause: JSON.stringify(cause),
		now: nowIso()
	});
}

/** Lines that an audit made and nobody touched, but for those with these keys: rule and resource. */
export function deleteUntouched(db: Db, clientId: number, auditId: number, keys: readonly string[]): void {
	sql(
		db,
		`DELETE FROM finding WHERE client_id = @clientId AND audit_id = @auditId AND state = 'open' AND owner = ''
			AND note = '' AND question = '' AND first_seen_at >= (SELECT created_at FROM audit WHERE id = @auditId)
			AND rule || '/' || resource NOT IN (SELECT value FROM json_each(@keys))`
	).run({ clientId, auditId, keys: JSON.stringify(keys) });
}

/** What an audit saw of it now. */
export function updateSeen(
	db: Db,
	id: number,
	{ auditId, cause, state }: { auditId: number; cause: Cause; state: FindingState }
): void {
	sql(
		db,
		`UPDATE finding SET audit_id = @auditId, cause = @cause, state = @state,
			changed_at = CASE WHEN state = @state THEN changed_at ELSE @now END WHERE id = @id`
	).run({ id, auditId, cause: JSON.stringify(cause), state, now: nowIso() });
}

export function changeFinding(
	db: Db,
	id: number,
	{ state, owner, note, question }: Pick<WorklistRow, 'state' | 'owner' | 'note' | 'question'>
): void {
	sql(
		db,
		`UPDATE finding SET state = @state, owner = @owner, note = @note, question = @question, changed_at = @now
			WHERE id = @id`
	).run({ id, state, owner, note, question, now: nowIso() });
}
