/** Loads: figures in columns, the record as compressed JSON, pictures as blobs. */
import { gunzipSync, gzipSync } from 'node:zlib';
import { METRIC_IDS, type Figures, type MetricId } from '$core/metrics/catalogue';
import { completeRecord } from '$core/load/emptyRecord';
import type { LoadRecord, MeasuredLoad } from '$core/load/record';
import type { TrialLoad } from '$core/trial/types';
import { sql, type Db } from './connection';

const COLUMNS = METRIC_IDS.map((id) => `"${id}"`).join(', ');
const PLACES = METRIC_IDS.map(() => '?').join(', ');

/** Where a load belongs in its trial. */
export interface LoadPlace {
	jobId: number | null;
	trialId: number | null;
	armId: number | null;
	conditionId: string;
	stage: number;
	round: number;
	warmup: boolean;
	clientId?: number | null;
}

/** A load outside any trial. */
export const ALONE = {
	jobId: null,
	trialId: null,
	armId: null,
	stage: 0,
	round: 0,
	warmup: false
} satisfies Partial<LoadPlace>;

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
};

const SUMMARY = `SELECT id, trial_id, arm_id, condition_id, stage, round, warmup, status, capped, reason, excluded,
	started_at, lab_ms, machine_speed, picture IS NOT NULL AS has_picture, url, source, failed_step, nudged, ${COLUMNS} FROM load`;

export function insertLoad(db: Db, place: LoadPlace, { record, frames, picture, stepPicture }: MeasuredLoad): number {
	const { failure, environment } = record;
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO load (job_id, trial_id, arm_id, condition_id, stage, round, warmup, status, capped, reason_code, reason,
			started_at, lab_ms, machine_speed, recipe, record, picture, url, source, client_id, failed_step, step_picture, nudged, ${COLUMNS})
		VALUES (${Array(23).fill('?').join(', ')}, ${PLACES})`
	).run(
		place.jobId,
		place.trialId,
		place.armId,
		place.conditionId,
		place.stage,
		place.round,
		Number(place.warmup),
		record.status,
		Number(record.capped),
		failure?.code ?? null,
		failure && `${failure.message} ${failure.advice}`,
		record.startedAt,
		record.labMs,
		environment.machineSpeed.before,
		record.recipe,
		gzipSync(JSON.stringify(record)),
		picture && Buffer.from(picture),
		record.url,
		record.source,
		place.clientId ?? null,
		record.steps.find((step) => step.status === 'failed')?.number ?? null,
		stepPicture ? Buffer.from(stepPicture.image) : null,
		Number(record.heldBack !== null),
		...METRIC_IDS.map((id) => record.figures[id])
	);
	frames.forEach((image, position) =>
		sql(db, 'INSERT INTO frame (load_id, position, at_ms, image) VALUES (?, ?, ?, ?)').run(
			lastInsertRowid,
			position,
			record.frames[position]!.atMs,
			Buffer.from(image)
		)
	);
	return Number(lastInsertRowid);
}

function asSummary(row: LoadRow): LoadSummary {
	return {
		id: row.id,
		trialId: row.trial_id,
		armId: row.arm_id ?? 0,
		conditionId: row.condition_id,
		stage: row.stage,
		round: row.round,
		warmup: row.warmup === 1,
		status: row.status,
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

export function findRecord(db: Db, id: number): LoadRecord | null {
	const row = sql<{ record: Buffer }>(db, 'SELECT record FROM load WHERE id = ?').get(id);
	return row ? completeRecord(JSON.parse(gunzipSync(row.record).toString('utf8')) as LoadRecord) : null;
}

/** Compressed records beyond this take long to read; half a megabyte is some 3,000 requests. */
const LARGE_BYTES = 200_000;

export function isLargeRecord(db: Db, id: number): boolean {
	return (
		(sql<{ bytes: number }>(db, 'SELECT length(record) AS bytes FROM load WHERE id = ?').get(id)?.bytes ?? 0) >
		LARGE_BYTES
	);
}

export function findPicture(db: Db, id: number): Buffer | null {
	return sql<{ picture: Buffer | null }>(db, 'SELECT picture FROM load WHERE id = ?').get(id)?.picture ?? null;
}

export function findStepPicture(db: Db, id: number): Buffer | null {
	return (
		sql<{ step_picture: Buffer | null }>(db, 'SELECT step_picture FROM load WHERE id = ?').get(id)?.step_picture ?? null
	);
}

const LONE = 'trial_id IS NULL AND (@clientId IS NULL OR client_id = @clientId)';

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

/** @param reason why it is left out; null counts it again */
export function excludeLoad(db: Db, id: number, reason: string | null): boolean {
	return sql(db, 'UPDATE load SET excluded = ? WHERE id = ? AND trial_id IS NOT NULL').run(reason, id).changes === 1;
}

export function findFrame(db: Db, id: number, position: number): Buffer | null {
	const row = sql<{ image: Buffer }>(db, 'SELECT image FROM frame WHERE load_id = ? AND position = ?').get(
		id,
		position
	);
	return row?.image ?? null;
}

export function framesOfLoad(db: Db, id: number): Buffer[] {
	const rows = sql<{ image: Buffer }>(db, 'SELECT image FROM frame WHERE load_id = ? ORDER BY position').all(id);
	return rows.map((row) => row.image);
}

/** Changes whenever a load of the trial comes, goes or is left out, or its design or state changes. */
export function stampOfLoads(db: Db, trialId: number): string {
	return String(sql<{ inputs: number }>(db, 'SELECT inputs FROM trial WHERE id = ?').get(trialId)?.inputs ?? 0);
}

/** Mean time of the trial's loads, ms; null before the first. */
export function meanLabMs(db: Db, trialId: number): number | null {
	return sql<{ mean: number | null }>(db, 'SELECT avg(lab_ms) AS mean FROM load WHERE trial_id = ?').get(trialId)!.mean;
}
