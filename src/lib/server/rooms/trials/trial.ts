/** A trial as it stands in the database: what other rooms may read of it. */
import type { Rewrite } from '$core/rewrites/rewrite';
import type { MetricId } from '$core/metrics/catalogue';
import type { EndReason, TrialStatus } from '$core/trial/design/status';
import type { Step } from '$core/load/journey/steps';
import type { VisitorState } from '$core/load/journey/visitorState';
import type { Cold } from '$core/trial/design/cold';
import type { PresenceCheck } from '$core/trial/design/presence';
import type { Setup } from '$core/trial/design/setup';
import type { TrialArm, TrialDesign } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { conditionsOfTrial, armRows, trialRow } from './queries/trial';
import { thawConditions } from '../conditions/view';
import type { ArmRow, TrialRow } from './queries/trial';

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
		...(row.decision === null ? {} : { decision: row.decision, decisionNote: row.decision_note }),
		...(row.undoes === null ? {} : { undoes: row.undoes }),
		...(row.rewrites === null ? {} : { rewrites: JSON.parse(row.rewrites) as Rewrite[] }),
		...(row.steps === null ? {} : { steps: JSON.parse(row.steps) as Step[] }),
		...(row.checks === null ? {} : { checks: JSON.parse(row.checks) as PresenceCheck[] })
	};
}

function designOf(db: Db, row: TrialRow): TrialDesign {
	const arms = armRows(db, row.id);
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
	const row = trialRow(db, id);
	return row ? asTrial(db, row) : null;
}
