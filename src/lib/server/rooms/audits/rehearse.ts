/** Rehearsals: the mend of a line of the worklist, tried in a trial before anybody builds it. */
import * as v from 'valibot';
import { DEFAULT_PRIMARY } from '$core/metrics/catalogue';
import { NewTrialInput } from '$core/trial/design/input';
import { rehearsalOf } from '$core/rewrites/rehearsal';
import type { Rewrite } from '$core/rewrites/rewrite';
import { wordRewrite } from '$core/wording/rewrites';
import { describeFinding } from '$core/wording/findings';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { createTrial, startTrial } from '../trials/commands';
import { listedAnswer } from '../trials/listedAnswer';
import { findTrial } from '../trials/trial';
import { rehearsalsOf } from '../trials/view';
import { existingFinding } from './commands';
import { findAudit } from './queries/audits';
import { bodyFactsOf } from './queries/bodies';
import type { WorklistRow } from './queries/findings';

const WARMUPS = 2;
const MOST_ROUNDS = 24;

/** @returns none for a rule that knows no mend, or whose audit is gone */
function rewritesFor(db: Db, { auditId, cause }: Pick<WorklistRow, 'auditId' | 'cause'>): Rewrite[] {
	const { finding } = cause.example;
	const facts = auditId === null ? null : (bodyFactsOf(db, auditId).get(finding.resource.name) ?? null);
	return rehearsalOf(finding, facts);
}

/** Made and begun at once, on the page that shows it best. @returns the trial's id */
export function rehearseFinding(db: Db, id: number): number {
	const row = existingFinding(db, id);
	const audit = row.auditId === null ? null : findAudit(db, row.auditId);
	if (!audit)
		throw new NotPossible(409, 'The audit that saw this finding was deleted. Start a new audit of its pages.');
	const rewrites = rewritesFor(db, row);
	if (!rewrites.length)
		throw new NotPossible(409, 'The lab knows no way to try this mend. Build it, and ask a trial whether it helped.');
	const { page, condition, finding } = row.cause.example;
	const { url, pageId } = audit.design.pages[page]!;
	const { title } = describeFinding(finding);
	const input = v.parse(NewTrialInput, {
		question: `What would mending it bring? ${title}`.slice(0, 300),
		kind: 'side-by-side',
		arms: [
			{ name: 'As it is', url, pageId, baseline: true },
			{
				name: rewrites
					.map((own) => wordRewrite(own))
					.join(', ')
					.slice(0, 80),
				url,
				pageId,
				rewrites
			}
		],
		conditions: [condition],
		rounds: MOST_ROUNDS,
		adaptive: true,
		warmups: WARMUPS,
		primary: [...new Set([...(finding.cost.metric ? [finding.cost.metric] : []), ...DEFAULT_PRIMARY])],
		rehearses: id,
		clientId: row.clientId
	});
	const trial = createTrial(db, input);
	startTrial(db, trial);
	return trial;
}

export interface RehearsalView {
	trial: number;
	/** Of each answer, newest trial alone; empty while it is under way. */
	sentences: string[];
}

/** The newest rehearsal of each line. */
export function rehearsalViews(db: Db, findings: readonly number[]): Map<number, RehearsalView> {
	const newest = new Map(rehearsalsOf(db, findings).map(({ finding, trial }) => [finding, trial]));
	return new Map(
		[...newest].flatMap(([finding, id]) => {
			const trial = findTrial(db, id);
			if (!trial) return [];
			const sentences = listedAnswer(db, trial).strips.map(({ sentence }) => sentence);
			return [[finding, { trial: id, sentences }] as const];
		})
	);
}
