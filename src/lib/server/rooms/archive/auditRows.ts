/** What the rows of audits and of the worklist may hold. */
import * as v from 'valibot';
import { MOST_AUDITED } from '$core/audits/audit';
import { RULE_IDS } from '$core/findings/finding';
import { FINDING_STATES } from '$core/findings/worklist';
import {
	conditionId,
	conditionIndex,
	hash,
	id,
	json,
	list,
	maybe,
	roundNumber,
	text,
	time,
	whole,
	type RowSchema
} from './columns';

const resource = v.object({ kind: text(20), name: text(4000), key: text(4000) });

export const AUDIT_ROWS: Readonly<Record<string, RowSchema>> = {
	audit: v.object({
		id,
		client_id: maybe(id),
		again_of: maybe(id),
		design: json(
			v.object({
				pages: list(v.object({ pageId: v.nullable(id), url: text(4000) }), MOST_AUDITED),
				conditions: list(v.object({ id: conditionId, name: text(200), summary: text(1000), hash }), 20),
				loads: roundNumber
			})
		),
		status: v.picklist(['done', 'stopped'], 'Only audits that are over may come with an archive.'),
		created_at: time,
		ended_at: maybe(time)
	}),
	audit_load: v.object({
		job_id: id,
		audit_id: id,
		page: whole,
		condition_id: conditionId,
		round: roundNumber,
		retry: v.optional(conditionIndex, 0)
	}),
	audit_body: v.object({
		audit_id: id,
		url: text(4000),
		facts: json(v.looseObject({ hash: text(64), bytes: whole }), 20_000)
	}),
	finding: v.object({
		id,
		client_id: id,
		rule: v.picklist(RULE_IDS, 'There is no such rule.'),
		resource: text(4000),
		audit_id: maybe(id),
		cause: json(v.looseObject({ rule: text(60), resource })),
		state: v.picklist(FINDING_STATES, 'There is no such state.'),
		owner: v.optional(text(120), ''),
		note: v.optional(text(2000), ''),
		question: v.optional(text(1000), ''),
		first_seen_at: time,
		changed_at: time
	})
};
