/** A trial’s row, its arms and its conditions. */
import type { Subject } from '../../../base/subject';
import { sql, type Db } from '../../../base/db/connection';
import type { NamedVersion } from '../../conditions/view';
import type { EndReason, TrialStatus } from '$core/trial/design/status';
import type { StepDecision, TrialKind } from '$core/trial/types';
import { PROGRESS } from './counters';

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

export interface ArmRow {
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
	decision: StepDecision | null;
	decision_note: string | null;
	undoes: number | null;
	rewrites: string | null;
	steps: string | null;
}

export const SELECT = `SELECT trial.*, client.name AS client_name, ${PROGRESS('trial.id')}
	FROM trial LEFT JOIN client ON client.id = client_id`;

/** The conditions of a trial with their versions, in order. */
export function conditionsOfTrial(db: Db, trialId: number): NamedVersion[] {
	return sql<NamedVersion>(
		db,
		'SELECT id, name, summary, hash FROM trial_conditions WHERE trial_id = ? ORDER BY position'
	).all(trialId);
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

export const armRows = (db: Db, trialId: number): ArmRow[] =>
	sql<ArmRow>(db, 'SELECT * FROM arm WHERE trial_id = ? ORDER BY position').all(trialId);

export const trialRow = (db: Db, id: number): TrialRow | undefined =>
	sql<TrialRow>(db, `${SELECT} WHERE trial.id = ?`).get(id);
