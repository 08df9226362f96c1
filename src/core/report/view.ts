/** A report as it is shown and frozen: plain data in which every figure and every word is final. */
import type { BoardMark } from '../trial/judge/board';
import type { ShiftResult, TrialDesign, TrialLoad } from '../trial/types';
import type { BlockKind, OutsideFigure } from './document';
import type { ShownText } from './richText';

export type ReportTone = 'better' | 'worse' | 'plain';

/** A figure that leads back to its evidence: its reference names it. */
export interface Cited {
	/** Empty where nothing but the sentence around it is meant. */
	ref: string;
	text: string;
}

export interface BoardRowView extends BoardMark {
	name: string;
	baseline: Cited;
	variant: Cited;
	/** The verdict. */
	word: Cited;
	/** The shift with its interval. */
	shift: string;
}

export interface BoardView {
	title: string;
	baseline: string;
	variant: string;
	rows: BoardRowView[];
}

/** A picture by the key under which the report keeps it. */
export interface PictureView {
	key: string;
	alt: string;
	width: number;
	height: number;
}

export interface TableView {
	title: string;
	head: string[];
	rows: { cells: string[]; bars?: (number | null)[] }[];
}

interface Contribution {
	name: string;
	/** Points that the score moved by this metric. */
	points: number;
	text: string;
}

export type BlockBody =
	| { kind: 'text' }
	| {
			kind: 'answer';
			answers: {
				conditions: string;
				sentence: string;
				detail: string;
				tone: ReportTone;
				/** What the sentence must not be read without; missing in versions from before. */
				caveats?: string[];
			}[];
	  }
	| { kind: 'board'; boards: BoardView[] }
	| {
			kind: 'score';
			rows: { title: string; before: Cited; after: Cited; shift: Cited; parts: Contribution[]; about: string }[];
	  }
	| {
			kind: 'estimation';
			plots: {
				title: string;
				unit: string;
				arms: { name: string; colour: string; values: number[]; middle: Cited }[];
				shift: string;
			}[];
	  }
	| { kind: 'frames'; strips: { title: string; times: string[]; arms: { name: string; pictures: PictureView[] }[] }[] }
	| { kind: 'lines'; groups: { title: string; lines: string[] }[] }
	| { kind: 'tables'; tables: TableView[]; about: string }
	| { kind: 'recommendations'; items: { what: string; facts: { name: string; text: string }[] }[] }
	| { kind: 'outside'; items: OutsideItem[] }
	/** `isEmpty`: there is nothing to say, and a version that is frozen does without it. */
	| { kind: 'missing'; why: string; isEmpty?: boolean };

export interface OutsideItem {
	said: string;
	own: string;
	lines: string[];
	rest: string;
	/** What its words follow from, where that is loads of a trial: for whoever computes them anew. */
	rests?: { figure: OutsideFigure; of: { trial: number; condition: string; arm: number } };
}

export interface BlockView {
	id: string;
	/** What it was composed as. */
	from: BlockKind;
	heading: string;
	words: ShownText[];
	body: BlockBody;
}

export interface AgencyView {
	name: string;
	contact: string;
	/** CSS colour; empty for Zafra's own. */
	accent: string;
	/** Key of the logo's picture; null without one. */
	logo: string | null;
	/** Standing text under every report. */
	standing: string;
}

/** Words around the blocks, in the report's language. */
export interface ReportLabels {
	better: string;
	inside: string;
	worse: string;
	metric: string;
	verdict: string;
	/** "Report 3 of 27 November 2026", "Draft". */
	stamp: string;
	contents: string;
	preparedFor: string;
	by: string;
}

export interface ReportView {
	title: string;
	language: 'en' | 'es';
	client: string;
	agency: AgencyView;
	labels: ReportLabels;
	blocks: BlockView[];
}

/** The loads and rules that the figures of one trial follow from. */
export interface TrialEvidence {
	id: number;
	question: string;
	design: TrialDesign;
	loads: (TrialLoad & { startedAt: string; url: string })[];
	results: ShiftResult[];
}

/** What is kept of a version: nothing that happens to the data later changes it. */
export interface FrozenReport {
	/** Of this shape. */
	format: 1;
	number: number;
	/** UTC ISO. */
	frozenAt: string;
	/** Versions of what computed the figures. */
	rules: { judge: string; recipe: string };
	view: ReportView;
	trials: TrialEvidence[];
	/** Keys of the pictures that the view names. */
	pictures: string[];
}

/** Keys of all pictures of a report. */
export function picturesIn({ blocks, agency }: Pick<ReportView, 'blocks' | 'agency'>): string[] {
	const frames = blocks.flatMap(({ body }) =>
		body.kind === 'frames'
			? body.strips.flatMap(({ arms }) => arms.flatMap(({ pictures }) => pictures.map(({ key }) => key)))
			: []
	);
	return [...new Set([...frames, ...(agency.logo ? [agency.logo] : [])])];
}

/** Every figure of a report with its reference, in reading order. */
export function citedIn({ blocks }: Pick<ReportView, 'blocks'>): Cited[] {
	return blocks
		.flatMap(({ words, body }) => [...citedInWords(words), ...citedInBody(body)])
		.filter(({ ref }) => ref !== '');
}

function citedInWords(words: readonly ShownText[]): Cited[] {
	const inlines = words.flatMap((part) => (part.type === 'paragraph' ? part.content : part.items.flat()));
	return inlines.flatMap((part) =>
		part.type === 'figure' && !part.isMissing ? [{ ref: part.ref, text: part.text }] : []
	);
}

function citedInBody(body: BlockBody): Cited[] {
	switch (body.kind) {
		case 'board':
			return body.boards.flatMap(({ rows }) =>
				rows.flatMap(({ baseline, variant, word }) => [baseline, variant, word])
			);
		case 'score':
			return body.rows.flatMap(({ before, after, shift }) => [before, after, shift]);
		case 'estimation':
			return body.plots.flatMap(({ arms }) => arms.map(({ middle }) => middle));
		default:
			return [];
	}
}
