/** Loads: figures in columns, the record and pictures as artifacts. */
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Sending } from '$core/trial/design/mustSend';
import { lateFacts, type LateFacts } from '$core/compare/late/facts';
import { METRIC_IDS, type Figures, type MetricId } from '$core/metrics/catalogue';
import type { Conditions } from '$core/load/conditions/conditions';
import { completeRecord } from '$core/load/record/emptyRecord';
import { landingOf } from '$core/load/record/landing';
import type { LoadRecord, MeasuredLoad } from '$core/load/record/record';
import type { TrialLoad } from '$core/trial/types';
import { thawConditions } from '../conditions/versions';
import { sql, type Db } from '../../base/db/connection';
import { artifactSize, findArtifact, listArtifacts, storeArtifact } from '../../base/storage/artifacts';
import type { JobPlace } from '../../base/queue/jobs';

const COLUMNS = METRIC_IDS.map((id) => `"${id}"`).join(', ');

/** What a load is stored with beside what was measured. */
export interface StoredWith {
	jobId: number | null;
	/** Null for a load outside a trial. */
	place: Omit<JobPlace, 'retry'> | null;
	conditionId: string;
	/** Version of the conditions; null for a load from a file. */
	conditionsHash: string | null;
	/** Of loads outside trials. */
	clientId: number | null;
	/** What a trial asks of its loads. */
	seen?: LoadSeen | null;
}

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

const ownerOf = (id: number) => ({ kind: 'load', id }) as const;

/** @returns the new load's id */
export function insertLoad(db: Db, stored: StoredWith, measured: MeasuredLoad): number {
	const row = { ...placeColumns(stored), ...recordColumns(measured.record) };
	const names = Object.keys(row);
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO load (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map((name) => `@${name}`).join(', ')})`
	).run(row);
	const id = Number(lastInsertRowid);
	storeArtifacts(db, id, measured);
	return id;
}

function placeColumns({ jobId, place, conditionId, conditionsHash, clientId, seen }: StoredWith) {
	return {
		job_id: jobId,
		trial_id: place?.trialId ?? null,
		arm_id: place?.armId ?? null,
		condition_id: conditionId,
		conditions_hash: conditionsHash,
		stage: place?.stage ?? 0,
		round: place?.round ?? 0,
		warmup: Number(place?.warmup ?? false),
		client_id: clientId,
		seen: seen ? JSON.stringify(seen) : null
	};
}

function recordColumns(record: LoadRecord) {
	const { failure, environment, figures } = record;
	return {
		status: record.status,
		capped: Number(record.capped),
		disturbed: Number(environment.calm?.disturbed ?? false),
		others_share: environment.calm?.share ?? null,
		browser: environment.browser,
		reason_code: failure?.code ?? null,
		reason: failure && `${failure.message} ${failure.advice}`,
		started_at: record.startedAt,
		lab_ms: record.labMs,
		machine_speed: environment.machineSpeed.before,
		recipe: record.recipe,
		url: record.url,
		source: record.source,
		failed_step: record.steps.find((step) => step.status === 'failed')?.number ?? null,
		nudged: Number(record.heldBack !== null),
		late: lateJson(record),
		...landingOf(record),
		...Object.fromEntries(METRIC_IDS.map((id) => [id, figures[id]]))
	};
}

function lateJson(record: LoadRecord): string | null {
	const late = lateFacts(record);
	return late && JSON.stringify(late);
}

/** What came late in a load; null of a load in which the lab neither waited on nor made an input. */
export function findLateFacts(db: Db, id: number): LateFacts | null {
	const row = sql<{ late: string | null; nudged: number }>(db, 'SELECT late, nudged FROM load WHERE id = ?').get(id);
	if (row?.late) return JSON.parse(row.late) as LateFacts;
	// From before it was kept beside the load.
	const record = row?.nudged ? findRecord(db, id) : null;
	return record && lateFacts(record);
}

function storeArtifacts(db: Db, id: number, { record, frames, picture, stepPicture }: MeasuredLoad): void {
	const owner = ownerOf(id);
	storeArtifact(db, { owner, role: 'record' }, 'application/gzip', gzipSync(JSON.stringify(record)));
	frames.forEach((image, position) =>
		storeArtifact(db, { owner, role: 'frame', position }, 'image/webp', Buffer.from(image))
	);
	if (picture) storeArtifact(db, { owner, role: 'picture' }, 'image/webp', Buffer.from(picture));
	if (stepPicture) storeArtifact(db, { owner, role: 'step-picture' }, 'image/webp', Buffer.from(stepPicture.image));
}

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
		reason: row.reason,
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

export function findRecord(db: Db, id: number): LoadRecord | null {
	const packed = findArtifact(db, { owner: ownerOf(id), role: 'record' });
	return packed && completeRecord(JSON.parse(gunzipSync(packed).toString('utf8')) as LoadRecord);
}

/** The conditions under which a load was made, secrets and all; null for a load from a file. */
export function frozenConditions(db: Db, id: number): Conditions | null {
	const row = sql<{ hash: string | null }>(db, 'SELECT conditions_hash AS hash FROM load WHERE id = ?').get(id);
	const named = findRecord(db, id)?.conditions;
	return row?.hash && named ? thawConditions(db, { ...named, hash: row.hash }) : null;
}

/** Compressed records beyond this take long to read; half a megabyte is some 3,000 requests. */
const LARGE_BYTES = 200_000;

export function isLargeRecord(db: Db, id: number): boolean {
	return artifactSize(db, { owner: ownerOf(id), role: 'record' }) > LARGE_BYTES;
}

export function findPicture(db: Db, id: number): Buffer | null {
	return findArtifact(db, { owner: ownerOf(id), role: 'picture' });
}

export function findStepPicture(db: Db, id: number): Buffer | null {
	return findArtifact(db, { owner: ownerOf(id), role: 'step-picture' });
}

export function findFrame(db: Db, id: number, position: number): Buffer | null {
	return findArtifact(db, { owner: ownerOf(id), role: 'frame', position });
}

export function framesOfLoad(db: Db, id: number): Buffer[] {
	return listArtifacts(db, ownerOf(id), 'frame');
}

/**
 * Loads that ask the page of another again are shown with it, those of a watch with their page, late ones with their
 * trial.
 */
const LONE = `trial_id IS NULL AND (@clientId IS NULL OR client_id = @clientId)
	AND NOT EXISTS (SELECT 1 FROM job WHERE job.id = load.job_id
		AND (of_load IS NOT NULL OR subject_kind IN ('reading', 'arm')))
	AND NOT EXISTS (SELECT 1 FROM reading_figure WHERE load_id = load.id)`;

/** A page of the loads outside any trial, newest first. */
export function loneLoads(db: Db, clientId: number | null, limit: number, offset: number): LoadSummary[] {
	return sql<LoadRow>(db, `${SUMMARY} WHERE ${LONE} ORDER BY id DESC LIMIT @limit OFFSET @offset`)
		.all({ clientId, limit, offset })
		.map(asSummary);
}

export function countLoneLoads(db: Db, clientId: number | null): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n FROM load WHERE ${LONE}`).get({ clientId })!.n;
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
