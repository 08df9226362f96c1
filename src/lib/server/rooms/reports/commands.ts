/** What changes a report: each call is one transaction. */
import { isLog } from '$core/trial/design/log';
import * as v from 'valibot';
import {
	draftOfAudit,
	draftOfLoad,
	draftOfPages,
	draftOfPeriod,
	draftOfTrial,
	draftOfWorklist
} from '$core/report/draft';
import { ReportDraft, type Block, type WorksheetLine } from '$core/report/document';
import { freeId } from '$core/report/freeId';
import { monthlyCostOf } from '$core/trial/design/setup';
import { wordDay } from '$core/wording/report';
import { reportWordsIn } from '$core/wording/reportWords';
import { DEVICE_CLASSES } from '$core/field/reading';
import { auditView } from '../audits/view';
import { dearestByPage } from '../audits/worklistView';
import { checkClient } from '../clients/clients';
import type { Db } from '../../base/db/connection';
import { pageFieldRows, passesOnBoth } from '../field/view';
import { NotPossible } from '../../base/refusal';
import { chosenPagesOf } from '../pages/chosen';
import { existingTrial } from '../trials/commands';
import { putInBin } from '../../base/storage/bin';
import { keepLines, lastLine } from './queries/worksheet';
import {
	deleteReport,
	existingReport,
	insertReport,
	updateDraft,
	type Report,
	takeBlockFromBin
} from './queries/reports';
import { findClient, languageOfClient } from '../clients/view';
import { clientOfLoad, findLoad } from '../loads/view';

const day = v.pipe(v.string('A day is text.'), v.regex(/^\d{4}-\d{2}-\d{2}$/, 'Write a day as 2026-11-27.'));
const id = v.nullable(v.pipe(v.number('An id is a number.'), v.integer(), v.minValue(1)));

/** A report begins with a trial, or with a client's pages. */
export const NewReport = v.object(
	{
		trial: v.optional(id, null),
		clientId: v.optional(id, null),
		load: v.optional(id, null),
		audit: v.optional(id, null),
		/** With a client: what is to be done there. */
		worklist: v.optional(v.boolean(), false),
		/** With a client: a report on what happened between two days. */
		period: v.optional(v.nullable(v.object({ from: day, until: day })), null),
		title: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(200, 'The title has at most 200 characters.')), ''),
		language: v.optional(v.nullable(v.picklist(['en', 'es'], 'The language is “en” or “es”.')), null)
	},
	'Send an object with “trial”, “load”, “audit” or “clientId”.'
);
export type NewReport = v.InferOutput<typeof NewReport>;

const ABOUT_NOTHING: NewReport = v.parse(NewReport, {});

/** @returns the report's id @throws NotPossible for a trial or client that is not there, or for neither */
export function createReport(db: Db, asked: Partial<NewReport>): number {
	const input: NewReport = { ...ABOUT_NOTHING, ...asked };
	return db
		.transaction(() => {
			if (input.trial !== null) return createForTrial(db, input.trial, input);
			if (input.load !== null) return createForLoad(db, input.load, input);
			if (input.audit !== null) return createForAudit(db, input.audit, input);
			if (input.clientId !== null && input.worklist) return createForWorklist(db, input.clientId, input);
			if (input.clientId !== null) return createForClient(db, input.clientId, input);
			throw new NotPossible(
				422,
				'Name the trial, the load, the audit or the client that the report is about.',
				'trial'
			);
		})
		.immediate();
}

function createForTrial(db: Db, trialId: number, { title, language }: NewReport): number {
	const { design, question, clientId } = existingTrial(db, trialId);
	const hasPrices = design.arms.some(
		({ setup }) => setup && (monthlyCostOf(setup) !== null || setup.effortHours !== null)
	);
	const begun = { title: title || question, language: language ?? languageOfClient(db, clientId) };
	return insertReport(
		db,
		clientId,
		draftOfTrial(trialId, begun, { hasPrices, hasScore: design.primary.includes('score'), isLog: isLog(design) })
	);
}

const shortAddress = (url: string) => url.replace(/^https?:\/\//, '').replace(/\/$/, '');

function createForLoad(db: Db, loadId: number, { title, language }: NewReport): number {
	const load = findLoad(db, loadId);
	if (!load) throw new NotPossible(404, `There is no load ${loadId}.`);
	const clientId = clientOfLoad(db, loadId);
	const own = language ?? languageOfClient(db, clientId);
	const named = title || reportWordsIn(own).say('report.title.load', { page: shortAddress(load.url) });
	return insertReport(db, clientId, draftOfLoad(loadId, { title: named, language: own }));
}

function createForAudit(db: Db, auditId: number, { title, language }: NewReport): number {
	const { clientId, name, isLookedAt, side } = auditView(db, auditId);
	if (!isLookedAt) throw new NotPossible(409, 'This audit is still under way. Report on it once it is over.');
	const own = language ?? languageOfClient(db, clientId);
	const named = title || reportWordsIn(own).say('report.title.audit', { pages: name });
	const parts = { hasClient: clientId !== null, hasSide: side.length > 0 };
	return insertReport(db, clientId, draftOfAudit(auditId, { title: named, language: own }, parts));
}

function createForWorklist(db: Db, clientId: number, { title, language }: NewReport): number {
	checkClient(db, clientId);
	const own = language ?? languageOfClient(db, clientId);
	const { name } = findClient(db, clientId)!;
	const named = title || reportWordsIn(own).say('report.title.worklist', { name });
	return insertReport(db, clientId, draftOfWorklist({ title: named, language: own }));
}

function createForClient(db: Db, clientId: number, { title, language, period }: NewReport): number {
	checkClient(db, clientId);
	const pages = chosenPagesOf(db, clientId);
	const own = language ?? languageOfClient(db, clientId);
	const { name } = findClient(db, clientId)!;
	if (period) {
		if (period.from > period.until) throw new NotPossible(422, 'The last day is before the first one.', 'period');
		const days = { from: wordDay(period.from, own), until: wordDay(period.until, own) };
		const named = title || reportWordsIn(own).say('report.title.period', { name, ...days });
		return insertReport(db, clientId, draftOfPeriod(period, pages, { title: named, language: own }));
	}
	const begun = { title: title || reportWordsIn(own).say('report.title', { name }), language: own };
	return insertReport(db, clientId, draftOfPages(pages, worksheetOf(db, clientId, pages), begun));
}

/** Findings that a new line of the worksheet names (house). */
const MOST_NAMED = 2;

/**
 * Lines as they stood last. New ones are good where visitors of the page itself have it good on both devices; others
 * name what the newest audit found to cost most there.
 */
function worksheetOf(db: Db, clientId: number, pages: readonly number[]): WorksheetLine[] {
	const dearest = dearestByPage(db, clientId);
	return pages.flatMap((page) => {
		const isGood = passesOnBoth(pageFieldRows(db, page));
		return DEVICE_CLASSES.map((device): WorksheetLine => {
			const last = lastLine(db, page, device);
			if (last) return last;
			const note = (dearest.get(page) ?? []).slice(0, MOST_NAMED).join('. ');
			return { page, device, state: isGood ? 'good' : 'todo', note: isGood ? '' : note.slice(0, 500), owner: '' };
		});
	});
}

/**
 * Save a draft over the one that was read.
 * @returns its new revision
 * @throws NotPossible when somebody else has saved meanwhile: nothing of theirs is lost
 */
export function saveDraft(db: Db, reportId: number, draft: ReportDraft, revision: number): number {
	return db
		.transaction(() => {
			const report = existingReport(db, reportId);
			binBlocks(db, report, draft);
			if (!updateDraft(db, reportId, draft, revision))
				throw new NotPossible(
					409,
					`Somebody else has saved this report meanwhile (revision ${report.revision}, yours began at ${revision}). Copy what you typed, load the page again and add it there.`
				);
			keepLines(
				db,
				draft.blocks.flatMap((block) => (block.kind === 'worksheet' ? block.lines : []))
			);
			return revision + 1;
		})
		.immediate();
}

/** Blocks that a draft no longer has go into the bin; those that are back leave it. */
function binBlocks(db: Db, { id: report, clientId, draft: before }: Report, after: ReportDraft): void {
	const left = new Set(after.blocks.map(({ id }) => id));
	before.blocks.forEach((block, position) => {
		if (left.has(block.id)) return;
		const name = `${block.kind} of “${before.title}”`;
		putInBin(db, { kind: 'block', name, clientId, body: { report, position, block } });
	});
	// Names are given again: what is back is what says the same.
	for (const block of after.blocks) takeBlockFromBin(db, report, block);
}

/** Where it stood, by another name where its own is taken. @throws NotPossible when its report is gone */
export function restoreBlock(
	db: Db,
	{ report: id, position, block }: { report: number; position: number; block: Block }
): void {
	const { draft, revision } = existingReport(db, id);
	const isTaken = draft.blocks.some((own) => own.id === block.id);
	const named = isTaken ? { ...block, id: freeId(block.kind, draft.blocks) } : block;
	saveDraft(db, id, { ...draft, blocks: draft.blocks.toSpliced(position, 0, named) }, revision);
}

/** @throws NotPossible for a report that is not there */
export function removeReport(db: Db, reportId: number): void {
	if (!deleteReport(db, reportId)) throw new NotPossible(404, `There is no report ${reportId}.`);
}
