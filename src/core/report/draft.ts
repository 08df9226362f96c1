/** Good first drafts: what a report on a trial, or on a client's pages, usually has. */
import type { Block, ReportDraft, TrialBlockKind, WorksheetLine } from './document';
import { NO_WORDS } from './richText';

interface Begun {
	title: string;
	language: ReportDraft['language'];
}

/** A block without words of its own. */
const bare = (id: string) => ({ id, heading: '', words: NO_WORDS });
const trialBlock = (kind: TrialBlockKind, trial: number): Block => ({ ...bare(`${kind}-${trial}`), kind, trial });

const begunWith = (begun: Begun, blocks: Block[]): ReportDraft => ({
	...begun,
	disclosure: { isPaid: null, words: '' },
	blocks
});

/** From the answer to the loads. @param parts of the trial that have something to show */
export function draftOfTrial(
	trial: number,
	begun: Begun,
	parts: { hasPrices: boolean; hasScore: boolean; isLog?: boolean }
): ReportDraft {
	const kinds: TrialBlockKind[] = [
		'answer',
		...(parts.isLog ? (['steps'] as const) : (['board'] as const)),
		...(parts.hasScore ? (['score'] as const) : []),
		'frames',
		'why',
		'weight',
		'broke',
		...(parts.hasPrices ? (['worth'] as const) : [])
	];
	return begunWith(begun, [
		...kinds.map((kind) => trialBlock(kind, trial)),
		{ ...bare('recommendations'), kind: 'recommendations', items: [] },
		trialBlock('method', trial),
		{ ...bare('disclosure'), kind: 'disclosure' },
		trialBlock('appendix', trial)
	]);
}

/** What happened at a client between two days, and what is open. */
export function draftOfPeriod(
	period: { from: string; until: string },
	pages: readonly number[],
	begun: Begun
): ReportDraft {
	return begunWith(begun, [
		{ ...bare('summary'), kind: 'text' },
		{ ...bare('period'), kind: 'period', ...period },
		{ ...bare('field'), kind: 'field', pages: [...pages] },
		{ ...bare('recommendations'), kind: 'recommendations', items: [] },
		{ ...bare('disclosure'), kind: 'disclosure' }
	]);
}

/** What real visitors have, page by page, and what is to be done about it. */
export function draftOfPages(pages: readonly number[], lines: readonly WorksheetLine[], begun: Begun): ReportDraft {
	return begunWith(begun, [
		{ ...bare('summary'), kind: 'text' },
		{ ...bare('field'), kind: 'field', pages: [...pages] },
		{ ...bare('worksheet'), kind: 'worksheet', lines: [...lines] },
		{ ...bare('recommendations'), kind: 'recommendations', items: [] },
		{ ...bare('disclosure'), kind: 'disclosure' }
	]);
}

/** One load, to be shown to somebody. */
export const draftOfLoad = (load: number, begun: Begun): ReportDraft =>
	begunWith(begun, [
		{ ...bare('load'), kind: 'load', load },
		{ ...bare('disclosure'), kind: 'disclosure' }
	]);

/** Where the pages of an audit stood, what is to be done, and what stands beside speed. */
export const draftOfAudit = (
	audit: number,
	begun: Begun,
	parts: { hasClient: boolean; hasSide: boolean }
): ReportDraft =>
	begunWith(begun, [
		{ ...bare('summary'), kind: 'text' },
		{ ...bare('audit'), kind: 'audit', audit },
		...(parts.hasClient ? [{ ...bare('worklist'), kind: 'worklist' as const }] : []),
		...(parts.hasSide ? [{ ...bare('side'), kind: 'side' as const, audit }] : []),
		{ ...bare('disclosure'), kind: 'disclosure' }
	]);

/** What is to be done at a client: for whoever does it. */
export const draftOfWorklist = (begun: Begun): ReportDraft =>
	begunWith(begun, [
		{ ...bare('worklist'), kind: 'worklist' },
		{ ...bare('disclosure'), kind: 'disclosure' }
	]);
