/** The answer of a trial as boards: what the sheet, the lists and the API show of it. */
import type { PutOff, PutOffOf } from '$core/compare/late/putOff';
import { metricOf } from '$core/metrics/catalogue';
import { ALL_PAGES, comparisonsOf, type Comparison } from '$core/trial/design/comparisons';
import { asksForBest, hasPages, isSamePage } from '$core/trial/design/kinds';
import { isLog } from '$core/trial/design/log';
import { usualName } from '$core/trial/design/sweep';
import type { Judgement, ShiftResult, TrialDesign } from '$core/trial/types';
import { boardName, boardRow, boardWord, type BoardRow } from '$core/wording/board';
import { boardMark, type BoardMark } from '$core/trial/judge/board';
import type { Tone } from '$core/wording/headline';
import { groupedAnswers, plainAnswer, plainNoise, type PlainAnswer } from '$core/wording/plainAnswer';
import type { Names } from '$core/wording/shift';
import { ENGLISH, type Words } from '$core/wording/words';
import { wordRewrite } from '$core/wording/rewrites';
import { wordRange } from '$core/wording/range';
import type { FiguresOf } from './shownFigures';
import { bestView, resultsFor, type BestView } from './bestView';

export interface AnswerBoard extends PlainAnswer {
	/** 0 for all pages of a sweep together. */
	arm: number;
	armName: string;
	baselineName: string;
	/** "Home"; null outside sweeps. */
	page: string | null;
	/** As a list names it: "Home: With chat". */
	label: string;
	rows: BoardRow[];
	caveats: Caveats;
}

/** What must be said beside a verdict; empty when there is nothing. */
export interface Caveats {
	broke: string;
	held: string;
	restsOn: string[];
}

const NO_CAVEATS: Caveats = { broke: '', held: '', restsOn: [] };

export interface ConditionsBoard {
	condition: string;
	name: string;
	/** What the conditions are, in a few words. */
	about: string;
	/** Names of the metrics that the trial decides on, for a board without marks. */
	metrics: string[];
	answers: AnswerBoard[];
	/** The answers of many variants in few sentences. */
	summary: { sentence: string; tone: Tone }[];
	/** Where it is asked which is best. */
	best: BestView | null;
}

interface Compared extends Names {
	id: number;
	page: string | null;
}

/** @param against the candidate that all others are held against, where it is asked which is best */
function comparedIn(design: TrialDesign, words: Words, against?: number): Compared[] {
	const comparisons = (asksForBest(design) ? turnedTo(design, against) : comparisonsOf(design)).map(
		({ arm, baseline }) => ({
			id: arm.id,
			page: arm.page ?? null,
			arm: arm.name,
			baseline: baseline.name
		})
	);
	if (!hasPages(design.kind) || comparisons.length < 2) return comparisons;
	const page = words.say('answer.pages', { n: comparisons.length });
	const arm = usualName(comparisonsOf(design).map((comparison) => comparison.arm)) ?? comparisons[0]!.arm;
	return [{ ...comparisons[0]!, id: ALL_PAGES, page, arm }, ...comparisons];
}

function turnedTo({ arms }: TrialDesign, against?: number): Comparison[] {
	const baseline = arms.find(({ id }) => id === against) ?? arms.find((arm) => arm.baseline)!;
	return arms.filter((arm) => arm !== baseline).map((arm) => ({ baseline, arm }));
}

/** One board per conditions; without marks before the first look. */
export function boardsOf(
	question: string,
	{
		design,
		judgement,
		caveats = [],
		words = ENGLISH,
		putOffOf = () => [],
		against,
		currency,
		figuresOf = () => []
	}: {
		design: TrialDesign;
		judgement: Pick<Judgement, 'results' | 'everyPair'>;
		caveats?: readonly (Caveats & { condition: string; arm: number })[];
		words?: Words;
		putOffOf?: PutOffOf;
		/** Which is best: the candidate that the boards hold all others against. */
		against?: number;
		/** ISO 4217, of the prices. */
		currency?: string;
		/** What the middle figures stand for. */
		figuresOf?: FiguresOf;
	}
): ConditionsBoard[] {
	const all = comparedIn(design, words, against);
	const compared = isLog(design) ? listedOf(design, judgement, all) : all;
	return design.conditions.map(({ id, name, summary: about }) => {
		const best = bestView({ design, judgement, words, putOffOf, currency, figuresOf }, id);
		const answers = compared.flatMap((pair): AnswerBoard[] => {
			const results = primaryOf(against === undefined ? judgement : turnedResults(judgement, against), id, pair.id);
			if (!results.length) return [];
			const putOff = putOffOf(id, pair.id, results);
			const match = caveats.find((candidate) => candidate.condition === id && candidate.arm === pair.id);
			const told = answerOf(question, { design, results, pair, words, putOff });
			const answer = rehearsed(design, pair.id, { answer: told, broke: match?.broke ?? '', words });
			const rows = orderedBy(design, results).map((result) =>
				boardRow(result, pair, words, putOff.find(({ metric }) => metric === result.metric) ?? null, {
					baseline: wordRange(result.metric, figuresOf(id, result.baseline, result.metric), words),
					arm: wordRange(result.metric, figuresOf(id, result.arm, result.metric), words)
				})
			);
			return [{ ...answer, ...namesOf(pair), rows, caveats: match ? caveatsIn(match) : NO_CAVEATS }];
		});
		const summary = best ? [best.answer] : groupedAnswers(answers, words);
		return {
			best,
			condition: id,
			name,
			about,
			summary,
			metrics: design.primary.map((metric) => boardName(metric, words)),
			answers
		};
	});
}

function answerOf(
	question: string,
	{
		design,
		results,
		pair,
		words,
		putOff
	}: { design: TrialDesign; results: readonly ShiftResult[]; pair: Compared; words: Words; putOff: readonly PutOff[] }
) {
	return isSamePage(design.kind)
		? plainNoise(results, words)
		: plainAnswer(question, { results, names: pair, words, putOff });
}

/** What a rehearsal says is said as that: nobody has built it; and one that broke the page tells no gain. */
function rehearsed(
	{ arms }: TrialDesign,
	armId: number,
	{ answer, broke, words }: { answer: PlainAnswer; broke: string; words: Words }
): PlainAnswer {
	const rewrites = arms.find(({ id }) => id === armId)?.rewrites ?? [];
	if (!rewrites.length) return answer;
	const lead = words.say('answer.rehearsed', {
		what: rewrites.map((own) => wordRewrite(own, words.language)).join(', ')
	});
	if (broke && answer.tone !== 'worse')
		return { sentence: `${lead} ${words.say('answer.rehearsed.broke', { broke })}`, detail: '', tone: 'none' };
	return { ...answer, sentence: `${lead} ${answer.sentence}` };
}

/** A variant as a list names it. */
const labelOf = ({ id, arm, page }: Compared) => (page === null ? arm : id === ALL_PAGES ? page : `${page}: ${arm}`);

const namesOf = (pair: Compared) => ({
	arm: pair.id,
	armName: pair.arm,
	baselineName: pair.baseline,
	page: pair.page,
	label: labelOf(pair)
});

const turnedResults = (judgement: Pick<Judgement, 'results' | 'everyPair'>, against: number) => ({
	results: resultsFor(judgement, against)
});

const primaryOf = ({ results }: Pick<Judgement, 'results'>, condition: string, arm: number) =>
	results.filter((result) => result.primary && result.condition === condition && result.arm === arm);

function orderedBy({ primary }: TrialDesign, results: readonly ShiftResult[]): ShiftResult[] {
	return primary.flatMap((metric) => results.filter((result) => result.metric === metric));
}

const caveatsIn = ({ broke, held, restsOn }: Caveats): Caveats => ({ broke, held, restsOn });

/** The answer on one line, for rows of lists. */
export interface StripView {
	condition: string;
	conditionName: string;
	arm: string;
	sentence: string;
	tone: Tone;
	marks: (BoardMark & { short: string; word: string })[];
}

/** At most so many lines a trial in a list. */
const MOST_STRIPS = 4;

export function stripsOf(
	question: string,
	design: TrialDesign,
	judgement: Pick<Judgement, 'results' | 'everyPair'>,
	putOffOf: PutOffOf = () => [],
	/** What the answers must not be read without; of rehearsals alone. */
	caveats: readonly (Pick<Caveats, 'broke'> & { condition: string; arm: number })[] = []
): { strips: StripView[]; more: number } {
	if (asksForBest(design)) return { strips: bestStrips(design, judgement, putOffOf), more: 0 };
	const compared = listedOf(design, judgement, comparedIn(design, ENGLISH));
	const all = compared.flatMap((pair) =>
		design.conditions.flatMap(({ id, name }): StripView[] => {
			const results = orderedBy(design, primaryOf(judgement, id, pair.id));
			if (!results.length) return [];
			const putOff = putOffOf(id, pair.id, results);
			const told = answerOf(question, { design, results, pair, words: ENGLISH, putOff });
			const broke = caveats.find((own) => own.condition === id && own.arm === pair.id)?.broke ?? '';
			const { sentence, tone } = rehearsed(design, pair.id, { answer: told, broke, words: ENGLISH });
			const marks = results.map((result) =>
				markOf(
					result,
					putOff.find(({ metric }) => metric === result.metric)
				)
			);
			return [{ condition: id, conditionName: name, arm: pair.arm, sentence, tone, marks }];
		})
	);
	return { strips: all.slice(0, MOST_STRIPS), more: Math.max(0, all.length - MOST_STRIPS) };
}

/** Of a sweep all pages together; of a log the newest step that was judged. */
function listedOf(design: TrialDesign, judgement: Pick<Judgement, 'results'>, compared: Compared[]): Compared[] {
	if (hasPages(design.kind)) return compared.slice(0, 1);
	if (!isLog(design)) return compared;
	return compared.filter(({ id }) => judgement.results.some(({ arm }) => arm === id)).slice(-1);
}

/** Which is best is a sentence: no marks stand for all pairs. */
function bestStrips(
	design: TrialDesign,
	judgement: Pick<Judgement, 'results' | 'everyPair'>,
	putOffOf: PutOffOf
): StripView[] {
	return design.conditions.flatMap(({ id, name }): StripView[] => {
		const best = bestView({ design, judgement, putOffOf }, id);
		if (!best) return [];
		const { sentence, tone } = best.answer;
		return [{ condition: id, conditionName: name, arm: '', sentence, tone, marks: [] }];
	});
}

function markOf(result: ShiftResult, putOff: PutOff | undefined): StripView['marks'][number] {
	const mark = { ...boardMark(result), ...(putOff ? { isPutOff: true } : {}) };
	const word = putOff ? ENGLISH.say(`board.put-off.${putOff.kind}`) : boardWord(mark);
	return { ...mark, short: metricOf(result.metric).short, word };
}
