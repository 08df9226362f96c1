/** Loads: figures in columns, the record and pictures as artifacts. */
import { gunzipSync, gzipSync } from 'node:zlib';
import * as v from 'valibot';
import { BODIES_DAYS, KeptBodies } from '$core/load/record/bodies';
import { lateFacts, type LateFacts } from '$core/compare/late/facts';
import { METRIC_IDS } from '$core/metrics/catalogue';
import type { Conditions } from '$core/load/conditions/conditions';
import { completeRecord } from '$core/load/record/emptyRecord';
import { landingOf } from '$core/load/record/landing';
import type { LoadRecord, MeasuredLoad } from '$core/load/record/record';
import type { Db } from '../../base/db/connection';
import {
	artifactSize,
	dropBodiesBefore,
	findArtifact,
	hashesOf,
	listArtifacts,
	storeArtifact
} from '../../base/storage/artifacts';
import type { TrialSlot } from '../../base/queue/jobs';
import type { LoadSeen } from './queries/loads';
import { thawConditions } from '../conditions/view';
import { insertRow, lateRow, conditionsHashOf } from './queries/loads';
import { readFailure, storedFailure } from '$core/wording/failure';

/** What a load is stored with beside what was measured. */
export interface StoredWith {
	jobId: number | null;
	/** Null for a load outside a trial. */
	slot: Omit<TrialSlot, 'retry'> | null;
	conditionId: string;
	/** Version of the conditions; null for a load from a file. */
	conditionsHash: string | null;
	/** Of loads outside trials. */
	clientId: number | null;
	/** What a trial asks of its loads. */
	seen?: LoadSeen | null;
}

const ownerOf = (id: number) => ({ kind: 'load', id }) as const;

/** @returns the new load's id */
export function insertLoad(db: Db, stored: StoredWith, measured: MeasuredLoad): number {
	const id = insertRow(db, { ...slotColumns(stored), ...recordColumns(measured.record) });
	storeArtifacts(db, id, measured);
	return id;
}

function slotColumns({ jobId, slot, conditionId, conditionsHash, clientId, seen }: StoredWith) {
	return {
		job_id: jobId,
		trial_id: slot?.trialId ?? null,
		arm_id: slot?.armId ?? null,
		condition_id: conditionId,
		conditions_hash: conditionsHash,
		stage: slot?.stage ?? 0,
		round: slot?.round ?? 0,
		warmup: Number(slot?.warmup ?? false),
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
		reason: failure && JSON.stringify(storedFailure(failure)),
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
	const row = lateRow(db, id);
	if (row?.late) return JSON.parse(row.late) as LateFacts;
	// From before it was kept beside the load.
	const record = row?.nudged ? findRecord(db, id) : null;
	return record && lateFacts(record);
}

function storeArtifacts(db: Db, id: number, measured: MeasuredLoad): void {
	const { record, frames, picture, stepPicture, survey, bodies } = measured;
	const owner = ownerOf(id);
	storeArtifact(db, { owner, role: 'record' }, 'application/gzip', gzipSync(JSON.stringify(asStored(record))));
	frames.forEach((image, position) =>
		storeArtifact(db, { owner, role: 'frame', position }, 'image/webp', Buffer.from(image))
	);
	if (picture) storeArtifact(db, { owner, role: 'picture' }, 'image/webp', Buffer.from(picture));
	if (stepPicture) storeArtifact(db, { owner, role: 'step-picture' }, 'image/webp', Buffer.from(stepPicture.image));
	if (survey?.picture) storeArtifact(db, { owner, role: 'survey-picture' }, 'image/webp', survey.picture);
	survey?.checkPictures.forEach((image, position) => {
		if (image) storeArtifact(db, { owner, role: 'check-picture', position }, 'image/webp', image);
	});
	if (!bodies) return;
	storeArtifact(db, { owner, role: 'bodies' }, 'application/gzip', gzipSync(JSON.stringify(bodies.kept)));
	bodies.files.forEach((bytes, position) =>
		// Never served: whatever a page called it, here it is bytes.
		storeArtifact(db, { owner, role: 'body', position }, 'application/octet-stream', bytes)
	);
}

export function findRecord(db: Db, id: number): LoadRecord | null {
	const packed = findArtifact(db, { owner: ownerOf(id), role: 'record' });
	return packed && unpackRecord(packed);
}

/** A record as it is stored, complete and with the words of its failure. */
export function unpackRecord(packed: Buffer): LoadRecord {
	const stored = JSON.parse(gunzipSync(packed).toString('utf8')) as LoadRecord;
	return completeRecord({ ...stored, failure: stored.failure && readFailure(stored.failure) });
}

/** A failure is stored without its words. */
const asStored = ({ failure, ...record }: LoadRecord) => ({ ...record, failure: failure && storedFailure(failure) });

/** The conditions under which a load was made, secrets and all; null for a load from a file. */
export function frozenConditions(db: Db, id: number): Conditions | null {
	const hash = conditionsHashOf(db, id);
	const named = findRecord(db, id)?.conditions;
	return hash && named ? thawConditions(db, { ...named, hash }) : null;
}

/** Compressed records beyond this take long to read; half a megabyte is some 3,000 requests. */
const LARGE_BYTES = 200_000;

export function isLargeRecord(db: Db, id: number): boolean {
	return artifactSize(db, { owner: ownerOf(id), role: 'record' }) > LARGE_BYTES;
}

/** What came with a load, where it is kept still; null otherwise. */
export function findBodies(db: Db, id: number): KeptBodies | null {
	const packed = findArtifact(db, { owner: ownerOf(id), role: 'bodies' });
	return packed && v.parse(KeptBodies, JSON.parse(gunzipSync(packed).toString('utf8')));
}

/** Hashes of the files, by their position in the list of what came. */
export const bodyHashes = (db: Db, id: number): Map<number, string> => hashesOf(db, ownerOf(id), 'body');

/** What came is kept for some days: what was worked out of it stays. */
export function dropOldBodies(db: Db, now = Date.now()): number {
	return dropBodiesBefore(db, new Date(now - BODIES_DAYS * DAY_MS).toISOString());
}
const DAY_MS = 86_400_000;

/** @param position in the list of what came */
export const findBody = (db: Db, id: number, position: number): Buffer | null =>
	findArtifact(db, { owner: ownerOf(id), role: 'body', position });

export function findPicture(db: Db, id: number): Buffer | null {
	return findArtifact(db, { owner: ownerOf(id), role: 'picture' });
}

export function findStepPicture(db: Db, id: number): Buffer | null {
	return findArtifact(db, { owner: ownerOf(id), role: 'step-picture' });
}

/** Of the first screens, or of a check that was tried. */
export const findSurveyPicture = (db: Db, id: number, check: number | null): Buffer | null =>
	check === null
		? findArtifact(db, { owner: ownerOf(id), role: 'survey-picture' })
		: findArtifact(db, { owner: ownerOf(id), role: 'check-picture', position: check });

export function findFrame(db: Db, id: number, position: number): Buffer | null {
	return findArtifact(db, { owner: ownerOf(id), role: 'frame', position });
}

export function framesOfLoad(db: Db, id: number): Buffer[] {
	return listArtifacts(db, ownerOf(id), 'frame');
}
