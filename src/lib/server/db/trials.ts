/** Trials and their arms. */
import type { MetricId } from '$core/metrics/catalogue';
import { completeConditions, type Conditions } from '$core/load/conditions';
import type { Setup } from '$core/trial/setup';
import type { Judgement, TrialArm, TrialDesign, TrialKind } from '$core/trial/types';
import { nowIso, sql, type Db } from './connection';

export type TrialStatus = 'draft' | 'queued' | 'running' | 'waiting' | 'done' | 'stopped' | 'failed';

export interface Trial {
	id: number;
	clientId: number | null;
	clientName: string | null;
	question: string;
	status: TrialStatus;
	message: string | null;
	/** Paused by the analyst: its jobs stay. */
	paused: boolean;
	repeatOf: number | null;
	design: TrialDesign;
	createdAt: string;
	startedAt: string | null;
	endedAt: string | null;
	readAt: string | null;
	progress: { done: number; total: number };
}

interface TrialRow {
	id: number;
	client_id: number | null;
	client_name: string | null;
	question: string;
	kind: TrialKind;
	status: TrialStatus;
	message: string | null;
	rounds: number;
	warmups: number;
	seed: number;
	primary_metrics: string;
	conditions: string;
	options: string;
	paused: number;
	repeat_of: number | null;
	created_at: string;
	started_at: string | null;
	ended_at: string | null;
	read_at: string | null;
	done: number;
	total: number;
}

interface ArmRow {
	id: number;
	name: string;
	url: string;
	is_baseline: number;
	is_reference: number;
	setup: string | null;
	page: string | null;
}

export interface NewTrial {
	clientId: number | null;
	question: string;
	repeatOf?: number | null;
	design: Omit<TrialDesign, 'arms'> & { arms: Omit<TrialArm, 'id'>[] };
}

const SELECT = `SELECT trial.*, client.name AS client_name,
	(SELECT count(*) FROM job WHERE trial_id = trial.id AND status = 'done') AS done,
	(SELECT count(*) FROM job WHERE trial_id = trial.id AND status <> 'cancelled') AS total
	FROM trial LEFT JOIN client ON client.id = client_id`;

/** What a design holds beyond the columns. */
function optionsOf(design: Omit<TrialDesign, 'arms'>): string {
	const { adaptive, added, looks, settleWithinMs, steps, intended, notBefore, spreadMinutes, margins, targets } =
		design;
	return JSON.stringify({
		adaptive,
		added,
		looks: looks ?? [],
		settleWithinMs,
		steps,
		intended,
		notBefore,
		spreadMinutes,
		margins,
		targets
	});
}

export function insertTrial(db: Db, { clientId, question, design, repeatOf = null }: NewTrial): number {
	return db.transaction(() => {
		const { lastInsertRowid } = sql(
			db,
			`INSERT INTO trial (client_id, question, kind, status, rounds, warmups, seed, primary_metrics, conditions, options, repeat_of, created_at)
			VALUES (?, ?, ?, 'draft', ?, ?, ?, ?, ?, ?, ?, ?)`
		).run(
			clientId,
			question,
			design.kind,
			design.rounds,
			design.warmups,
			design.seed,
			JSON.stringify(design.primary),
			JSON.stringify(design.conditions),
			optionsOf(design),
			repeatOf,
			nowIso()
		);
		design.arms.forEach((arm, position) =>
			sql(
				db,
				'INSERT INTO arm (trial_id, position, name, url, is_baseline, is_reference, page, setup) VALUES (?, ?, ?, ?, ?, ?, ?, ?)'
			).run(
				lastInsertRowid,
				position,
				arm.name,
				arm.url,
				Number(arm.baseline),
				Number(arm.reference),
				arm.page ?? null,
				arm.setup ? JSON.stringify(arm.setup) : null
			)
		);
		return Number(lastInsertRowid);
	})();
}

function asTrial(db: Db, row: TrialRow): Trial {
	const arms = sql<ArmRow>(db, 'SELECT * FROM arm WHERE trial_id = ? ORDER BY position').all(row.id);
	return {
		id: row.id,
		clientId: row.client_id,
		clientName: row.client_name,
		question: row.question,
		status: row.status,
		message: row.message,
		paused: row.paused === 1,
		repeatOf: row.repeat_of,
		design: {
			...(JSON.parse(row.options) as Partial<TrialDesign>),
			kind: row.kind,
			arms: arms.map((arm) => ({
				id: arm.id,
				name: arm.name,
				url: arm.url,
				baseline: arm.is_baseline === 1,
				reference: arm.is_reference === 1,
				page: arm.page,
				setup: arm.setup === null ? null : (JSON.parse(arm.setup) as Setup)
			})),
			conditions: (JSON.parse(row.conditions) as Conditions[]).map(completeConditions),
			rounds: row.rounds,
			warmups: row.warmups,
			seed: row.seed,
			primary: JSON.parse(row.primary_metrics) as MetricId[]
		},
		createdAt: row.created_at,
		startedAt: row.started_at,
		endedAt: row.ended_at,
		readAt: row.read_at,
		progress: { done: row.done, total: row.total }
	};
}

export function findTrial(db: Db, id: number): Trial | null {
	const row = sql<TrialRow>(db, `${SELECT} WHERE trial.id = ?`).get(id);
	return row ? asTrial(db, row) : null;
}

/** Newest first. */
export function listTrials(db: Db, clientId: number | null = null): Trial[] {
	const rows = sql<TrialRow>(
		db,
		`${SELECT} WHERE @clientId IS NULL OR client_id = @clientId ORDER BY trial.id DESC`
	).all({ clientId });
	return rows.map((row) => asTrial(db, row));
}

/** Counters of trials that run or wait, and of those that ended last; newest first. */
export function trialCounters(db: Db): { id: number; status: TrialStatus; done: number; total: number }[] {
	return sql<{ id: number; status: TrialStatus; done: number; total: number }>(
		db,
		`WITH followed AS (
			SELECT id, status FROM trial WHERE status IN ('queued', 'running', 'waiting')
			UNION SELECT id, status FROM (SELECT id, status FROM trial ORDER BY id DESC LIMIT 10)
		)
		SELECT id, status,
			(SELECT count(*) FROM job WHERE trial_id = followed.id AND status = 'done') AS done,
			(SELECT count(*) FROM job WHERE trial_id = followed.id AND status <> 'cancelled') AS total
		FROM followed ORDER BY id DESC LIMIT 50`
	).all();
}

export function setTrialStatus(db: Db, id: number, status: TrialStatus, message: string | null = null): void {
	const ended = status === 'done' || status === 'stopped' || status === 'failed';
	sql(
		db,
		`UPDATE trial SET status = @status, message = @message,
			started_at = CASE WHEN @status = 'running' THEN coalesce(started_at, @now) ELSE started_at END,
			ended_at = CASE WHEN @ended THEN @now ELSE NULL END,
			read_at = CASE WHEN @ended THEN read_at ELSE NULL END
		WHERE id = @id`
	).run({ id, status, message, now: nowIso(), ended: Number(ended) });
}

export function setPaused(db: Db, id: number, paused: boolean): void {
	sql(db, 'UPDATE trial SET paused = ? WHERE id = ?').run(Number(paused), id);
}

/** Change what may change once a trial exists: its looks and rounds, and which differences are intended. */
export function changeDesign(
	db: Db,
	{ id, design }: Trial,
	change: Partial<Pick<TrialDesign, 'looks' | 'intended' | 'rounds' | 'added'>>
): void {
	const next = { ...design, ...change };
	sql(db, 'UPDATE trial SET options = ?, rounds = ? WHERE id = ?').run(optionsOf(next), next.rounds, id);
}

export function setArmSetup(db: Db, armId: number, trialId: number, setup: Setup): boolean {
	return (
		sql(db, 'UPDATE arm SET setup = ? WHERE id = ? AND trial_id = ?').run(JSON.stringify(setup), armId, trialId)
			.changes === 1
	);
}

/** Trials with the same conditions that looked at one page twice, newest first: the noise floor. */
export function samePageTrials(db: Db): Trial[] {
	return sql<TrialRow>(db, `${SELECT} WHERE kind = 'same-page' AND status = 'done' ORDER BY trial.id DESC LIMIT 20`)
		.all()
		.map((row) => asTrial(db, row));
}

export function repeatsOf(db: Db, id: number): { id: number; status: TrialStatus; createdAt: string }[] {
	return sql<{ id: number; status: TrialStatus; createdAt: string }>(
		db,
		'SELECT id, status, created_at AS createdAt FROM trial WHERE repeat_of = ? ORDER BY id'
	).all(id);
}

export function markTrialRead(db: Db, id: number): void {
	sql(db, 'UPDATE trial SET read_at = ? WHERE id = ? AND ended_at IS NOT NULL AND read_at IS NULL').run(nowIso(), id);
}

export function deleteTrial(db: Db, id: number): void {
	sql(db, 'DELETE FROM trial WHERE id = ?').run(id);
}

export function findJudgement(db: Db, trialId: number, version: string, stamp: string): Judgement | null {
	const row = sql<{ result: string }>(
		db,
		'SELECT result FROM judgement WHERE trial_id = ? AND version = ? AND stamp = ?'
	).get(trialId, version, stamp);
	return row ? (JSON.parse(row.result) as Judgement) : null;
}

export function keepJudgement(db: Db, trialId: number, stamp: string, judgement: Judgement): void {
	sql(db, 'INSERT OR REPLACE INTO judgement (trial_id, version, stamp, result) VALUES (?, ?, ?, ?)').run(
		trialId,
		judgement.version,
		stamp,
		JSON.stringify(judgement)
	);
}
