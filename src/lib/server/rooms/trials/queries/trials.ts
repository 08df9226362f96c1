/** Lists and changes of trials: this room's own SQL. */
import type { Conditions } from '$core/load/conditions/conditions';
import type { EndReason, TrialStatus } from '$core/trial/design/status';
import type { Setup } from '$core/trial/design/setup';
import type { StepDecision, TrialArm, TrialDesign } from '$core/trial/types';
import { nowIso, sql, type Db } from '../../../base/db/connection';
import { PROGRESS } from './counters';
import { asTrial, type Trial } from '../trial';
import { SELECT, type TrialRow } from './trial';
import { freezeConditions } from '../../conditions/view';

export interface NewTrial {
	clientId: number | null;
	question: string;
	repeatOf?: number | null;
	design: Omit<TrialDesign, 'arms'> & { arms: Omit<TrialArm, 'id'>[] };
}

/** What of a design stands in no column of its own. */
const OPTIONS = [
	'aim',
	'plannedSteps',
	'adaptive',
	'added',
	'settleWithinMs',
	'steps',
	'intended',
	'notBefore',
	'spreadMinutes',
	'margins',
	'targets',
	'conditionTargets',
	'countsDisturbed',
	'lateLoads',
	'lateAsked',
	'mustSend',
	'returnStage',
	'twin',
	'rehearses'
] as const satisfies (keyof TrialDesign)[];

function optionsOf(design: Omit<TrialDesign, 'arms'>): string {
	return JSON.stringify({
		looks: design.looks ?? [],
		...Object.fromEntries(OPTIONS.map((name) => [name, design[name]]))
	});
}

/** @returns the new trial's id */
export function insertTrial(db: Db, { clientId, question, design, repeatOf = null }: NewTrial): number {
	return db.transaction(() => {
		const { lastInsertRowid } = sql(
			db,
			`INSERT INTO trial (client_id, question, kind, status, rounds, warmups, seed, primary_metrics, options,
				repeat_of, created_at)
			VALUES (@clientId, @question, @kind, 'draft', @rounds, @warmups, @seed, @primary, @options, @repeatOf, @now)`
		).run({
			clientId,
			question,
			kind: design.kind,
			rounds: design.rounds,
			warmups: design.warmups,
			seed: design.seed,
			primary: JSON.stringify(design.primary),
			options: optionsOf(design),
			repeatOf,
			now: nowIso()
		});
		const id = Number(lastInsertRowid);
		design.arms.forEach((arm, position) => insertArm(db, id, position, arm));
		design.conditions.forEach((conditions, position) => insertConditions(db, id, position, conditions));
		return id;
	})();
}

function insertArm(db: Db, trialId: number, position: number, arm: Omit<TrialArm, 'id'>): void {
	sql(
		db,
		`INSERT INTO arm (trial_id, position, name, url, is_baseline, is_reference, page, page_id, setup, checks, cold, before,
			decision, decision_note, undoes, steps, rewrites)
			VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
	).run(
		trialId,
		position,
		arm.name,
		arm.url,
		Number(arm.baseline),
		Number(arm.reference),
		arm.page ?? null,
		arm.pageId ?? null,
		arm.setup ? JSON.stringify(arm.setup) : null,
		arm.checks?.length ? JSON.stringify(arm.checks) : null,
		arm.cold ? JSON.stringify(arm.cold) : null,
		arm.before ? JSON.stringify(arm.before) : null,
		arm.decision ?? null,
		arm.decisionNote ?? null,
		arm.undoes ?? null,
		arm.steps ? JSON.stringify(arm.steps) : null,
		arm.rewrites?.length ? JSON.stringify(arm.rewrites) : null
	);
}

/** A stage more, after all others. */
export function appendArm(db: Db, trialId: number, arm: Omit<TrialArm, 'id'>): void {
	const { position } = sql<{ position: number }>(
		db,
		'SELECT coalesce(max(position), -1) + 1 AS position FROM arm WHERE trial_id = ?'
	).get(trialId)!;
	insertArm(db, trialId, position, arm);
	noteNewInputs(db, trialId);
}

export function setUndoes(db: Db, armId: number, undone: number): void {
	sql(db, 'UPDATE arm SET undoes = ? WHERE id = ?').run(undone, armId);
}

export function setDecision(db: Db, armId: number, decision: StepDecision, note: string | null): void {
	sql(db, 'UPDATE arm SET decision = ?, decision_note = ? WHERE id = ?').run(decision, note, armId);
}

function insertConditions(db: Db, trialId: number, position: number, conditions: Conditions): void {
	const { id, name, summary, hash } = freezeConditions(db, conditions);
	sql(db, 'INSERT INTO trial_conditions (trial_id, position, id, name, summary, hash) VALUES (?, ?, ?, ?, ?, ?)').run(
		trialId,
		position,
		id,
		name,
		summary,
		hash
	);
}

export interface TrialFilter {
	clientId: number | null;
	/** Part of the question, of the client's name, or of an arm's address. */
	words?: string;
	/** Empty for all; `paused` trials are found under `waiting` too. */
	status?: string;
	kind?: string;
	/** Tone of some answer: `better`, `undecided` ... */
	tone?: string;
	/** Host of an arm. */
	host?: string;
}

const FILTER = `FROM trial LEFT JOIN client ON client.id = client_id
	WHERE (@clientId IS NULL OR client_id = @clientId)
	AND (@status = '' OR status = @status OR (@status = 'waiting' AND status = 'paused'))
	AND (@kind = '' OR kind = @kind)
	AND (@words = '' OR instr(lower(question), @words) OR instr(lower(coalesce(client.name, '')), @words)
		OR EXISTS (SELECT 1 FROM arm WHERE trial_id = trial.id AND instr(lower(url), @words)))
	AND (@host = '' OR EXISTS (SELECT 1 FROM arm WHERE trial_id = trial.id AND instr(url || '/', '://' || @host || '/')))
	AND (@tone = '' OR EXISTS (SELECT 1 FROM derived, json_each(body) AS answer
		WHERE subject_kind = 'trial' AND subject_id = trial.id AND derived.kind = 'outcome' AND answer.value ->> 'tone' = @tone))`;

const filterValues = ({ clientId, words = '', status = '', kind = '', tone = '', host = '' }: TrialFilter) => ({
	clientId,
	words: words.trim().toLowerCase(),
	status,
	kind,
	tone,
	host
});

/** Newest first. */
export function listTrials(db: Db, filter: TrialFilter, limit: number, offset = 0): Trial[] {
	const rows = sql<TrialRow>(
		db,
		`SELECT trial.*, client.name AS client_name, ${PROGRESS('trial.id')} ${FILTER}
			ORDER BY trial.id DESC LIMIT @limit OFFSET @offset`
	).all({ ...filterValues(filter), limit, offset });
	return rows.map((row) => asTrial(db, row));
}

export function countTrials(db: Db, filter: TrialFilter): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n ${FILTER}`).get(filterValues(filter))!.n;
}

/** Hosts of all arms of a client's trials, or of all trials. */
export function hostsOfTrials(db: Db, clientId: number | null): string[] {
	const rows = sql<{ url: string }>(
		db,
		`SELECT DISTINCT substr(url, 1, instr(substr(url || '/', 9), '/') + 8) AS url FROM arm
			JOIN trial ON trial.id = trial_id WHERE @clientId IS NULL OR client_id = @clientId`
	).all({ clientId });
	return [...new Set(rows.map(({ url }) => new URL(url).host))].sort();
}

/** Those in one of some states, newest first. @param unread null for read and unread ones */
export function listTrialsIn(
	db: Db,
	statuses: readonly TrialStatus[],
	{ clientId, unread = null, limit }: { clientId: number | null; unread?: boolean | null; limit: number }
): Trial[] {
	const rows = sql<TrialRow>(
		db,
		`${SELECT} WHERE status IN (SELECT value FROM json_each(@statuses))
			AND (@clientId IS NULL OR client_id = @clientId)
			AND (@unread IS NULL OR (read_at IS NULL) = @unread)
			ORDER BY trial.id DESC LIMIT @limit`
	).all({ statuses: JSON.stringify(statuses), clientId, unread: unread === null ? null : Number(unread), limit });
	return rows.map((row) => asTrial(db, row));
}

const ENDED: readonly TrialStatus[] = ['done', 'stopped', 'failed'];

export function setTrialStatus(db: Db, id: number, status: TrialStatus, reason: EndReason | null = null): void {
	sql(
		db,
		`UPDATE trial SET status = @status, reason = @reason,
			started_at = CASE WHEN @status = 'running' THEN coalesce(started_at, @now) ELSE started_at END,
			ended_at = CASE WHEN @ended THEN @now ELSE NULL END,
			read_at = CASE WHEN @ended THEN read_at ELSE NULL END,
			first_at = CASE WHEN @ended THEN NULL ELSE first_at END
		WHERE id = @id`
	).run({ id, status, reason, now: nowIso(), ended: Number(ENDED.includes(status)) });
}

/** @param at UTC ISO */
export function setFirst(db: Db, id: number, at: string): void {
	sql(db, 'UPDATE trial SET first_at = ? WHERE id = ?').run(at, id);
}

/** When a trial was measured elsewhere: its own moments. */
export function setTrialTimes(
	db: Db,
	{ id, createdAt, startedAt, endedAt }: { id: number; createdAt: string; startedAt: string; endedAt: string }
): void {
	sql(
		db,
		'UPDATE trial SET created_at = @createdAt, started_at = @startedAt, ended_at = @endedAt, read_at = @endedAt WHERE id = @id'
	).run({ id, createdAt, startedAt, endedAt });
}

/** Change what may change once a trial exists: its looks and rounds, and which differences are intended. */
export function updateDesign(
	db: Db,
	{ id, design }: Trial,
	change: Partial<Pick<TrialDesign, 'looks' | 'intended' | 'rounds' | 'added' | 'countsDisturbed' | 'lateAsked'>>
): void {
	const next = { ...design, ...change };
	sql(db, 'UPDATE trial SET options = ?, rounds = ? WHERE id = ?').run(optionsOf(next), next.rounds, id);
}

/** What an answer is made from has changed beside the trial's own loads. */
export function noteNewInputs(db: Db, id: number): void {
	sql(db, 'UPDATE trial SET inputs = inputs + 1 WHERE id = ?').run(id);
}

/** @returns false when the trial has no such arm */
export function updateSetup(db: Db, armId: number, trialId: number, setup: Setup): boolean {
	const update = sql(db, 'UPDATE arm SET setup = ? WHERE id = ? AND trial_id = ?');
	return update.run(JSON.stringify(setup), armId, trialId).changes === 1;
}

/** Trials that looked at one page twice under a version of conditions, newest first. @param hash names the version */
export function samePageTrials(db: Db, hash: string): Trial[] {
	const rows = sql<TrialRow>(
		db,
		`${SELECT} WHERE kind = 'same-page' AND status = 'done'
			AND EXISTS (SELECT 1 FROM trial_conditions WHERE trial_id = trial.id AND hash = ?)
			ORDER BY trial.id DESC LIMIT 5`
	).all(hash);
	return rows.map((row) => asTrial(db, row));
}

/** Ids of the trials that repeat this one, oldest first. */
export function repeatsOf(db: Db, id: number): number[] {
	return sql<{ id: number }>(db, 'SELECT id FROM trial WHERE repeat_of = ? ORDER BY id')
		.all(id)
		.map((row) => row.id);
}

export function markTrialRead(db: Db, id: number): void {
	sql(db, 'UPDATE trial SET read_at = ? WHERE id = ? AND ended_at IS NOT NULL AND read_at IS NULL').run(nowIso(), id);
}

export function deleteTrialRow(db: Db, id: number): boolean {
	return sql(db, 'DELETE FROM trial WHERE id = ?').run(id).changes === 1;
}

/** Trials that rehearse lines of the worklist, newest last. */
export const rehearsalsOf = (db: Db, findings: readonly number[]): { finding: number; trial: number }[] =>
	findings.flatMap((finding) =>
		sql<{ id: number }>(db, `SELECT id FROM trial WHERE options ->> '$.rehearses' = ? ORDER BY id`)
			.all(finding)
			.map(({ id }) => ({ finding, trial: id }))
	);
