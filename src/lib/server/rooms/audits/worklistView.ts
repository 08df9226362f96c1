/** The worklist as the screens and the API show it. */
import { RULES } from '$core/findings/finding';
import type { FindingState } from '$core/findings/worklist';
import { describeFinding, describeReach, wordEffort, wordMender, wordRank } from '$core/wording/findings';
import type { Db } from '../../base/db/connection';
import { clientNames } from '../clients/view';
import { findAuditFindings } from './findings';
import { listAudits } from './queries/audits';
import {
	countFindings,
	listFindings,
	rulesSeen,
	statesOf,
	type WorklistFilter,
	type WorklistRow
} from './queries/findings';
import { rehearsalOf } from '$core/rewrites/rehearsal';
import { rehearsalViews } from './rehearse';
import { costWords, ROWS } from './view';

const STATES: Readonly<Record<FindingState, string>> = {
	open: 'open',
	accepted: 'accepted',
	planned: 'planned',
	done: 'done, says who did it',
	'seen-done': 'seen done',
	'not-worth': 'not worth it',
	'came-back': 'came back'
};

export function worklistView(db: Db, filter: WorklistFilter, page = 1) {
	const total = countFindings(db, filter);
	const names = new Map(clientNames(db).map(({ id, name }) => [id, name]));
	const rows = listFindings(db, filter, ROWS, (page - 1) * ROWS);
	const rehearsals = rehearsalViews(
		db,
		rows.map(({ id }) => id)
	);
	return {
		total,
		page,
		rules: rulesSeen(db, filter.clientId),
		states: statesOf(db, filter.clientId).map(({ state, n }) => ({ state, n, name: STATES[state] })),
		rows: rows.map((row) => ({
			...worklistRow(row, names),
			canRehearse: row.auditId !== null && rehearsalOf(row.cause.example.finding).length > 0,
			rehearsal: rehearsals.get(row.id) ?? null
		}))
	};
}

export type WorklistView = ReturnType<typeof worklistView>;

export function worklistRow(row: WorklistRow, names: ReadonlyMap<number, string> = new Map()) {
	const { cause } = row;
	const { who, effort } = RULES[row.rule];
	return {
		id: row.id,
		client: names.get(row.clientId) ?? '',
		clientId: row.clientId,
		rule: row.rule,
		resource: cause.resource,
		audit: row.auditId,
		state: row.state,
		stateName: STATES[row.state],
		owner: row.owner,
		note: row.note,
		question: row.question,
		firstSeenAt: row.firstSeenAt,
		changedAt: row.changedAt,
		pages: [cause.pages.k, cause.pages.m] as const,
		reach: describeReach(cause),
		rank: wordRank(cause),
		cost: costWords(cause),
		saving: cause.saving,
		hurts: cause.hurts,
		who: wordMender(who),
		effort: wordEffort(effort),
		load: cause.example.finding.load,
		...describeFinding(cause.example.finding)
	};
}

/** Of the newest audit that was looked at: what costs most on each page of a site, in words, dearest first. */
export function dearestByPage(db: Db, clientId: number): Map<number, string[]> {
	const newest = listAudits(db, clientId, ROWS, 0).find(({ id }) => findAuditFindings(db, id));
	const causes = newest ? findAuditFindings(db, newest.id)!.causes : [];
	const byPage = new Map<number, string[]>();
	for (const { pages, example } of causes)
		for (const page of pages.which) {
			const pageId = newest!.design.pages[page]?.pageId;
			if (!pageId) continue;
			byPage.set(pageId, [...(byPage.get(pageId) ?? []), describeFinding(example.finding).title]);
		}
	return byPage;
}
