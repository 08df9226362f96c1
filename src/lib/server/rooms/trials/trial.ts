/** A trial as it stands in the database: what other rooms may read of it. */
import type { MetricId } from '$core/metrics/catalogue';
import type { EndReason, TrialStatus } from '$core/trial/design/status';
import type { VisitorState } from '$core/load/journey/visitorState';
import type { Cold } from '$core/trial/design/cold';
import type { PresenceCheck } from '$core/trial/design/presence';
import type { Setup } from '$core/trial/design/setup';
import type { TrialArm, TrialDesign, TrialKind } from '$core/trial/types';
import { thawConditions, type NamedVersion } from '../conditions/versions';
import type { Subject } from '../../base/subject';
import { sql, type Db } from '../../base/db/connection';
import { PROGRESS } from './counters';

export interface Trial {
	id: number;
	clientId: number | null;
	clientName: string | null;
	question: string;
	status: TrialStatus;
	/** Why it ended before its plan; null otherwise. */
	reason: EndReason | null;
	repeatOf: number | null;
	design: TrialDesign;
	createdAt: string;
	startedAt: string | null;
	endedAt: string | null;
	readAt: string | null;
	progress: { done: number; total: number };
}

export interface TrialRow {
	id: number;
	client_id: number | null;
	client_name: string | null;
	question: string;
	kind: TrialKind;
	status: TrialStatus;
	reason: EndReason | null;
	rounds: number;
	warmups: number;
	seed: number;
	primary_metrics: string;
	options: string;
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
	checks: string | null;
	cold: string | null;
	before: string | null;
	page: string | null;
	page_id: number | null;
}

export const SELECT = `SELECT trial.*, client.name AS client_name, ${PROGRESS('trial.id')}
	FROM trial LEFT JOIN client ON client.id = client_id`;

function asArm(row: ArmRow): TrialArm {
	return {
		id: row.id,
		name: row.name,
		url: row.url,
		baseline: row.is_baseline === 1,
		reference: row.is_reference === 1,
		page: row.page,
		...(row.page_id === null ? {} : { pageId: row.page_id }),
		setup: row.setup === null ? null : (JSON.parse(row.setup) as Setup),
		...(row.cold === null ? {} : { cold: JSON.parse(row.cold) as Cold }),
		...(row.before === null ? {} : { before: JSON.parse(row.before) as VisitorState }),
		...(row.checks === null ? {} : { checks: JSON.parse(row.checks) as PresenceCheck[] })
	};
}

/** The conditions of a trial with their versions, in order. */
export function conditionsOfTrial(db: Db, trialId: number): NamedVersion[] {
	return sql<NamedVersion>(
		db,
		'SELECT id, name, summary, hash FROM trial_conditions WHERE trial_id = ? ORDER BY position'
	).all(trialId);
}

function designOf(db: Db, row: TrialRow): TrialDesign {
	const arms = sql<ArmRow>(db, 'SELECT * FROM arm WHERE trial_id = ? ORDER BY position').all(row.id);
	return {
		...(JSON.parse(row.options) as Partial<TrialDesign>),
		kind: row.kind,
		arms: arms.map(asArm),
		conditions: conditionsOfTrial(db, row.id).map((version) => thawConditions(db, version)),
		rounds: row.rounds,
		warmups: row.warmups,
		seed: row.seed,
		primary: JSON.parse(row.primary_metrics) as MetricId[]
	};
}

export function asTrial(db: Db, row: TrialRow): Trial {
	return {
		id: row.id,
		clientId: row.client_id,
		clientName: row.client_name,
		question: row.question,
		status: row.status,
		reason: row.reason,
		repeatOf: row.repeat_of,
		design: designOf(db, row),
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

/** The trial of the arm on whose behalf a job is done; null for other subjects. */
export function trialOfArm(db: Db, subject: Subject): number | null {
	if (subject.kind !== 'arm') return null;
	return sql<{ trial_id: number }>(db, 'SELECT trial_id FROM arm WHERE id = ?').get(subject.id)?.trial_id ?? null;
}

/** Changes whenever a load of the trial comes, goes or is excluded, or its design or state changes. */
export function fingerprintOfInputs(db: Db, trialId: number): string {
	return String(sql<{ inputs: number }>(db, 'SELECT inputs FROM trial WHERE id = ?').get(trialId)?.inputs ?? 0);
}
