/** Making, stopping and repeating audits; their loads as they come. */
import * as v from 'valibot';
import { MOST_RETRIES, type AuditDesign, type AuditInput } from '$core/audits/audit';
import { LEAST_GOOD_LOADS } from '$core/findings/since';
import { FINDING_STATES, SAID_STATES, type FindingState } from '$core/findings/worklist';
import { hasSecrets, type Conditions } from '$core/load/conditions/conditions';
import type { MeasuredLoad } from '$core/load/record/record';
import { existingClient } from '../clients/clients';
import { atPlaceOf } from '../clients/sites';
import { existingSite } from '../clients/view';
import { findConditions, namesOfConditions } from '../conditions/saved';
import { freezeConditions, thawConditions, type NamedVersion } from '../conditions/view';
import { insertLoad } from '../loads/loads';
import { insertRequest } from '../loads/requested';
import { existingPage } from '../pages/view';
import type { Db } from '../../base/db/connection';
import { hasOpenJob, insertJob, PRIORITY, type Job } from '../../base/queue/jobs';
import { NotPossible } from '../../base/refusal';
import {
	cancelWaiting,
	hasOpenDerive,
	deleteAuditRow,
	endAudit,
	findAudit,
	insertAudit,
	insertAuditSlot,
	slotOfAuditJob,
	type Audit
} from './queries/audits';
import { changeFinding, findFinding, type WorklistRow } from './queries/findings';

const subjectOf = (id: number) => ({ kind: 'audit', id }) as const;

/** @throws NotPossible for an audit that is not there */
export function existingAudit(db: Db, id: number): Audit {
	const audit = findAudit(db, id);
	if (!audit) throw new NotPossible(404, `There is no audit ${id}.`);
	return audit;
}

/** Made and begun at once. @returns its id */
export function createAudit(db: Db, input: AuditInput): number {
	return db.transaction(() => {
		if (input.clientId !== null) existingClient(db, input.clientId);
		const conditions = [...new Set(input.conditions)].map((id) => conditionsOf(db, id));
		const pages = pagesFrom(db, input);
		const design: AuditDesign = {
			pages,
			conditions: conditions.map((own) => freezeConditions(db, own)),
			loads: input.loads
		};
		return begin(db, { clientId: input.clientId, againOf: null, design });
	})();
}

function conditionsOf(db: Db, id: string): Conditions {
	const found = findConditions(db, id);
	if (!found)
		throw new NotPossible(422, `Unknown conditions “${id}”. Known are: ${namesOfConditions(db)}.`, 'conditions');
	return found;
}

function pagesFrom(db: Db, { clientId, pages, urls }: AuditInput): AuditDesign['pages'] {
	const known = [...new Set(pages)].map((id) => {
		const page = existingPage(db, id);
		if (clientId === null || existingSite(db, page.siteId).clientId !== clientId)
			throw new NotPossible(422, `Page ${id} belongs to another client.`, 'pages');
		return { pageId: id, url: page.url };
	});
	const typed = [...new Set(urls.map((url) => new URL(url).href))].map((url) => ({ pageId: null, url }));
	return [...known, ...typed.filter(({ url }) => known.every((page) => page.url !== url))];
}

/** Page by page and round by round: a page's loads are spread over the audit. */
function begin(db: Db, audit: Pick<Audit, 'clientId' | 'againOf' | 'design'>): number {
	const id = insertAudit(db, audit);
	const { pages, conditions, loads } = audit.design;
	for (let round = 1; round <= loads; round++)
		pages.forEach((_, page) => {
			for (const { id: condition } of conditions)
				insertSlot(db, { ...audit, id }, { page, condition, round, retry: 0 });
		});
	return id;
}

interface Slot {
	page: number;
	condition: string;
	round: number;
	retry: number;
}

function insertSlot(db: Db, audit: Pick<Audit, 'id' | 'clientId' | 'design'>, slot: Slot): void {
	const { url } = audit.design.pages[slot.page]!;
	const frozen = thawConditions(
		db,
		audit.design.conditions.find(({ id }) => id === slot.condition)!
	);
	const conditions = atPlaceOf(db, audit.clientId, [url], frozen);
	// Once a page and device is enough of what stands beside speed, and of what came.
	const isFirst = slot.round === 1;
	// What came is not kept of a page behind a sign-in.
	const order = { url, conditions, steps: [], sideChecks: isFirst, bodies: isFirst && !hasSecrets(conditions) };
	const jobId = insertRequest(db, subjectOf(audit.id), order);
	insertAuditSlot(db, { jobId, auditId: audit.id, ...slot });
}

/** Store a load of an audit, and move the audit on. In the caller's transaction. */
export function storeAuditLoad(db: Db, job: Job, version: NamedVersion, measured: MeasuredLoad): void {
	const slot = slotOfAuditJob(db, job.id);
	const audit = findAudit(db, job.subject.id);
	// Deleted while it was loaded.
	if (!slot || !audit) return;
	const stored = { jobId: job.id, slot: null, conditionsHash: version.hash, clientId: audit.clientId };
	insertLoad(db, { ...stored, conditionId: slot.condition }, measured);
	const { status, environment } = measured.record;
	const isBad = status === 'failed' || environment.calm?.disturbed === true;
	if (isBad && slot.retry < MOST_RETRIES && audit.status === 'running')
		insertSlot(db, audit, { page: slot.page, condition: slot.condition, round: slot.round, retry: slot.retry + 1 });
	if (hasOpenJob(db, 'load', subjectOf(audit.id))) return;
	// Stopped while it was loaded: it counts all the same.
	if (!finish(db, audit.id, 'done')) requestFindings(db, audit.id);
}

/** @returns whether it was under way */
function finish(db: Db, id: number, status: 'done' | 'stopped'): boolean {
	if (!endAudit(db, id, status)) return false;
	requestFindings(db, id);
	requestSavings(db, id);
	return true;
}

/** Once, however often it is asked for before a lab comes to it. */
export function requestFindings(db: Db, id: number): void {
	if (hasOpenDerive(db, id, 'findings')) return;
	insertJob(db, { kind: 'derive', subject: subjectOf(id), order: 'findings', priority: PRIORITY.awaited });
}

/** Behind everything else: its files are looked through for what could be saved. */
export function requestSavings(db: Db, id: number): void {
	insertJob(db, { kind: 'derive', subject: subjectOf(id), order: 'savings', priority: PRIORITY.catchUp });
}

/** With what it has: what was loaded is looked at. */
export function stopAudit(db: Db, id: number): void {
	db.transaction(() => {
		if (existingAudit(db, id).status !== 'running') throw new NotPossible(409, 'This audit is over already.');
		cancelWaiting(db, id);
		finish(db, id, 'stopped');
	})();
}

/**
 * The same pages once more, under the conditions as they are now.
 * @param pages numbers of those that are looked at; null for all @param least loads of each, at least
 * @returns the id of the new audit
 */
export function repeatAudit(db: Db, id: number, pages: readonly number[] | null = null, least = 1): number {
	return db.transaction(() => {
		const { clientId, design, status } = existingAudit(db, id);
		if (status === 'running') throw new NotPossible(409, 'This audit is still under way. Wait until it is over.');
		const kept = design.pages.filter((_, i) => pages === null || pages.includes(i));
		if (!kept.length) throw new NotPossible(422, 'No page is left to look at again.');
		const conditions = design.conditions.map(({ id: own }) => freezeConditions(db, conditionsOf(db, own)));
		const loads = Math.max(least, design.loads);
		return begin(db, { clientId, againOf: id, design: { pages: kept, conditions, loads } });
	})();
}

/**
 * The pages of one finding, so often that it can be seen done. @returns the id of the new audit
 * @throws NotPossible for a finding whose audit is gone
 */
export function lookAgainAt(db: Db, findingId: number): number {
	const { auditId, cause } = existingFinding(db, findingId);
	if (auditId === null || !findAudit(db, auditId))
		throw new NotPossible(409, 'The audit that saw this finding was deleted. Start a new audit of its pages.');
	return repeatAudit(db, auditId, cause.pages.which, LEAST_GOOD_LOADS);
}

/** Its loads stay as loads of their pages. */
export function deleteAudit(db: Db, id: number): void {
	db.transaction(() => {
		if (existingAudit(db, id).status === 'running')
			throw new NotPossible(409, 'This audit is under way. Stop it first.');
		deleteAuditRow(db, id);
	})();
}

export const FindingChange = v.object({
	state: v.optional(
		v.picklist(SAID_STATES, `A finding is set to: ${SAID_STATES.join(', ')}. That it is seen done an audit says.`)
	),
	owner: v.optional(v.pipe(v.string('The owner is text.'), v.trim(), v.maxLength(120, 'At most 120 characters.'))),
	note: v.optional(v.pipe(v.string('A note is text.'), v.trim(), v.maxLength(2000, 'At most 2,000 characters.'))),
	question: v.optional(
		v.pipe(v.string('A question is text.'), v.trim(), v.maxLength(1000, 'At most 1,000 characters.'))
	)
});
export type FindingChange = v.InferOutput<typeof FindingChange>;

/** @throws NotPossible for a finding that is not there */
export function existingFinding(db: Db, id: number): WorklistRow {
	const row = findFinding(db, id);
	if (!row) throw new NotPossible(404, `There is no finding ${id}.`);
	return row;
}

/** Of some lines at once. @throws NotPossible for one that is not there */
export function changeFindings(db: Db, ids: readonly number[], change: FindingChange): void {
	db.transaction(() => {
		for (const id of ids) {
			const { state, owner, note, question } = existingFinding(db, id);
			changeFinding(db, id, { state, owner, note, question, ...change });
		}
	})();
}

export const isFindingState = (text: string): text is FindingState => FINDING_STATES.includes(text as FindingState);
