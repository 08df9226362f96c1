/** Loads: their figures in columns. */
import type { Sending } from '$core/trial/design/mustSend';
import { METRIC_IDS, type Figures, type MetricId } from '$core/metrics/catalogue';
import type { TrialLoad } from '$core/trial/types';
import { sql, type Db } from '../../../base/db/connection';
import type { FailureReason } from '$core/load/record/record';
import { failureWords, readFailure } from '$core/wording/failure';

const COLUMNS = METRIC_IDS.map((id) => `"${id}"`).join(', ');

/** Which checks of its arm a load met, and when what must be sent left. */
export interface LoadSeen {
	checks: (boolean | null)[];
	sendings: Sending[];
}

export interface LoadSummary extends TrialLoad {
	trialId: number | null;
	capped: boolean;
	reason: string | null;
	startedAt: string;
	labMs: number;
	machineSpeed: number | null;
	hasPicture: boolean;
	url: string;
	source: 'lab' | 'har';
	/** Number of the step that failed. */
	failedStep: number | null;
	nudged: boolean;
	sendings: Sending[];
	/** Where it ended, where that is another page; null where it stayed, or nobody has looked yet. */
	landed: string | null;
}

type LoadRow = Record<MetricId, number | null> & {
	id: number;
	trial_id: number | null;
	arm_id: number | null;
	condition_id: string;
	stage: number;
	round: number;
	warmup: number;
	status: 'ok' | 'failed';
	disturbed: number;
	capped: number;
	reason: string | null;
	excluded: string | null;
	started_at: string;
	lab_ms: number;
	machine_speed: number | null;
	has_picture: number;
	url: string;
	source: 'lab' | 'har';
	failed_step: number | null;
	nudged: number;
	seen: string | null;
	landed: string | null;
};

const SUMMARY = `SELECT id, trial_id, arm_id, condition_id, stage, round, warmup, status, disturbed, capped, reason, excluded,
	started_at, lab_ms, machine_speed, url, source, failed_step, nudged, seen, landed,
	EXISTS (SELECT 1 FROM artifact_use WHERE owner_kind = 'load' AND owner_id = load.id AND role = 'picture') AS has_picture, ${COLUMNS} FROM load`;

function asSummary(row: LoadRow): LoadSummary {
	const seen = row.seen === null ? null : (JSON.parse(row.seen) as LoadSeen);
	return {
		id: row.id,
		trialId: row.trial_id,
		armId: row.arm_id ?? 0,
		conditionId: row.condition_id,
		stage: row.stage,
		round: row.round,
		warmup: row.warmup === 1,
		status: row.status,
		disturbed: row.disturbed === 1,
		capped: row.capped === 1,
		reason: row.reason && reasonWords(row.reason),
		excluded: row.excluded,
		startedAt: row.started_at,
		labMs: row.lab_ms,
		machineSpeed: row.machine_speed,
		hasPicture: row.has_picture === 1,
		url: row.url,
		source: row.source,
		failedStep: row.failed_step,
		nudged: row.nudged === 1,
		sendings: seen?.sendings ?? [],
		landed: row.landed,
		...(seen?.checks.length ? { checks: seen.checks } : {}),
		figures: Object.fromEntries(METRIC_IDS.map((id) => [id, row[id]])) as Figures
	};
}

/** Loads of earlier releases hold words; today's hold the failure. */
const reasonWords = (stored: string): string =>
	stored.startsWith('{') ? failureWords(readFailure(JSON.parse(stored) as FailureReason)) : stored;

/** In the order in which they were run. */
export function loadsOfTrial(db: Db, trialId: number): LoadSummary[] {
	return sql<LoadRow>(db, `${SUMMARY} WHERE trial_id = ? ORDER BY id`).all(trialId).map(asSummary);
}

export function findLoad(db: Db, id: number): LoadSummary | null {
	const row = sql<LoadRow>(db, `${SUMMARY} WHERE id = ?`).get(id);
	return row ? asSummary(row) : null;
}

/** The load that a job ended with, or null. */
export function loadOfJob(db: Db, jobId: number): number | null {
	return sql<{ id: number }>(db, 'SELECT id FROM load WHERE job_id = ?').get(jobId)?.id ?? null;
}

/** Of whose sites a load may speak: the client of its trial, or its own. */
export function clientOfLoad(db: Db, id: number): number | null {
	const row = sql<{ client: number | null }>(
		db,
		`SELECT coalesce(load.client_id, trial.client_id) AS client FROM load
			LEFT JOIN trial ON trial.id = load.trial_id WHERE load.id = ?`
	).get(id);
	return row?.client ?? null;
}

/**
 * Loads that ask the page of another again are shown with it, those of a watch with their page, late ones with their
 * trial.
 */
const LONE = `trial_id IS NULL AND (@clientId IS NULL OR client_id = @clientId)
	AND NOT EXISTS (SELECT 1 FROM job WHERE job.id = load.job_id
		AND (of_load IS NOT NULL OR subject_kind IN ('reading', 'arm')))
	AND NOT EXISTS (SELECT 1 FROM audit_load WHERE audit_load.job_id = load.job_id)
	AND NOT EXISTS (SELECT 1 FROM reading_figure WHERE load_id = load.id)`;

export interface LoneFilter {
	clientId: number | null;
	/** Part of the address. */
	words?: string;
	conditions?: string;
	status?: '' | 'ok' | 'failed';
	/** Day from which on, as 2026-12-01. */
	since?: string;
}

const FILTERED = `${LONE} AND (@words = '' OR instr(lower(url), @words)) AND (@conditions = '' OR condition_id = @conditions)
	AND (@status = '' OR status = @status) AND (@since = '' OR started_at >= @since)`;

const valuesOf = ({ clientId, words = '', conditions = '', status = '', since = '' }: LoneFilter) => ({
	clientId,
	words: words.trim().toLowerCase(),
	conditions,
	status,
	since
});

/** A page of the loads outside any trial, newest first. */
export function loneLoads(db: Db, filter: LoneFilter, limit: number, offset: number): LoadSummary[] {
	return sql<LoadRow>(db, `${SUMMARY} WHERE ${FILTERED} ORDER BY id DESC LIMIT @limit OFFSET @offset`)
		.all({ ...valuesOf(filter), limit, offset })
		.map(asSummary);
}

export function countLoneLoads(db: Db, filter: LoneFilter): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n FROM load WHERE ${FILTERED}`).get(valuesOf(filter))!.n;
}

/** Only loads outside trials: those of a trial are its evidence. */
export function deleteLoneLoad(db: Db, id: number): boolean {
	return sql(db, 'DELETE FROM load WHERE id = ? AND trial_id IS NULL').run(id).changes === 1;
}

/** @param reason why it is excluded; null counts it again */
export function setExcluded(db: Db, id: number, reason: string | null): void {
	sql(db, 'UPDATE load SET excluded = ? WHERE id = ? AND trial_id IS NOT NULL').run(reason, id);
}

/** Mean time of the trial's loads, ms; null before the first. */
export function meanLabMs(db: Db, trialId: number): number | null {
	return sql<{ mean: number | null }>(db, 'SELECT avg(lab_ms) AS mean FROM load WHERE trial_id = ?').get(trialId)!.mean;
}

/** Over the newest loads of any trial; null without loads. */
const LATELY = 100;

export function recentLabMs(db: Db): number | null {
	return sql<{ mean: number | null }>(
		db,
		"SELECT avg(lab_ms) AS mean FROM (SELECT lab_ms FROM load WHERE source = 'lab' ORDER BY id DESC LIMIT ?)"
	).get(LATELY)!.mean;
}

/** @param row by the names of the columns @returns its number */
export function insertRow(db: Db, row: Record<string, unknown>): number {
	const names = Object.keys(row);
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO load (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map((name) => `@${name}`).join(', ')})`
	).run(row);
	return Number(lastInsertRowid);
}

export const lateRow = (db: Db, id: number) =>
	sql<{ late: string | null; nudged: number }>(db, 'SELECT late, nudged FROM load WHERE id = ?').get(id);

export const conditionsHashOf = (db: Db, id: number): string | null =>
	sql<{ hash: string | null }>(db, 'SELECT conditions_hash AS hash FROM load WHERE id = ?').get(id)?.hash ?? null;
