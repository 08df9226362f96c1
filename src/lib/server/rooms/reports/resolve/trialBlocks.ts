/** What the blocks of a trial show: answer, board, score, loads, frames. */
import { countedLoads } from '$core/trial/judge/counted';
import type { ShiftResult } from '$core/trial/types';
import { metricOf } from '$core/metrics/catalogue';
import { LAB_RECIPE } from '$core/metrics/score';
import { appendixTables } from '$core/wording/appendixTables';
import { columnsOfFilms, frameKey } from '$core/report/filmStrip';
import type { BlockBody, BoardView, ReportTone } from '$core/report/view';
import type { Tone } from '$core/wording/headline';
import { boardName, boardWord } from '$core/wording/board';
import { formatDuration } from '$core/wording/format';
import { localNumber } from '$core/wording/localNumber';
import { wordShiftIn } from '$core/wording/report';
import { armColour } from '$lib/charts/armColour';
import type { PlainAnswer } from '$core/wording/plainAnswer';
import type { AnswerBoard, Caveats } from '../../trials/boardView';
import type { StepMark } from '$core/trial/judge/stepBoard';
import { stepsView } from '../../trials/stepsView';
import { markersOf } from '../../trials/view';
import { namesOf, type Material, type TrialMaterial } from '../material';

export type TrialBlock = (material: Material, trial: TrialMaterial) => BlockBody;

const missing = ({ words }: Material, what: 'judged' | 'evidence' | 'score' | 'frames'): BlockBody => ({
	kind: 'missing',
	why: words.say(`report.missing.${what}`),
	isEmpty: what === 'score' || what === 'frames'
});

const toneOf = (tone: Tone): ReportTone => (tone === 'better' || tone === 'worse' ? tone : 'plain');

export const answerBlock: TrialBlock = (material, { boards }) => {
	const answers = boards.flatMap(({ name, best, answers: told }) =>
		(best ? [bestOf(best.answer, told)] : told).map(({ sentence, detail, tone, page, caveats }) => ({
			conditions: page ? `${name}, ${page}` : name,
			sentence: localNumber(sentence, material.words.language),
			detail: localNumber(detail, material.words.language),
			tone: toneOf(tone),
			caveats: caveatLines(material, caveats)
		}))
	);
	return answers.length ? { kind: 'answer', answers } : missing(material, 'judged');
};

/** Which is best, once for all candidates, with what must be said of any of them. */
function bestOf(
	answer: PlainAnswer,
	told: readonly AnswerBoard[]
): Pick<AnswerBoard, keyof PlainAnswer | 'page' | 'caveats'> {
	const all = (pick: (caveats: Caveats) => string) =>
		[...new Set(told.map(({ caveats }) => pick(caveats)).filter(Boolean))].join(' ');
	const restsOn = [...new Set(told.flatMap(({ caveats }) => caveats.restsOn))];
	return {
		...answer,
		page: null,
		caveats: { broke: all(({ broke }) => broke), held: all(({ held }) => held), restsOn }
	};
}

function caveatLines({ words }: Material, { broke, held, restsOn }: Caveats): string[] {
	const differs = restsOn.length ? words.say('report.caveat.differs', { things: words.list(restsOn) }) : '';
	return [broke, held, differs].filter(Boolean);
}

export const boardBlock: TrialBlock = (material, { trial, boards, judgement, design }) => {
	const views = boards.flatMap(({ condition, name, answers }) =>
		answers.map(({ arm, label, baselineName, armName, rows }): BoardView => {
			const resultOf = (metric: string) =>
				judgement.results.find(
					(result) => result.condition === condition && result.arm === arm && result.metric === metric
				)!;
			return {
				title: answers.length > 1 ? `${name}: ${label}` : name,
				baseline: baselineName,
				variant: armName,
				rows: rows.map(({ name: metricName, word, baseline: _b, arm: _a, text: _t, ranges: _r, ...mark }) => {
					const result = resultOf(mark.metric);
					return {
						...mark,
						name: metricName,
						baseline: material.cite(trial.id, result, 'baseline'),
						variant: material.cite(trial.id, result, 'variant'),
						// A gain that comes back is none, whatever the verdict on the first moments says.
						word: mark.isPutOff ? { ref: '', text: word } : material.cite(trial.id, result, 'verdict'),
						shift: wordShiftIn(result, material.words)
					};
				})
			};
		})
	);
	return views.length && design.arms.length ? { kind: 'board', boards: views } : missing(material, 'judged');
};

/** A log, one row a step: verdicts in words, and what became of it. */
export const stepsBlock: TrialBlock = (material, { design, judgement, loads, trial }) => {
	const { words } = material;
	const markers = markersOf(material.db, trial.id);
	const view = stepsView({ design, judgement, loads, markers, words });
	if (!view || view.made === 0) return missing(material, 'judged');
	const told = (marks: readonly StepMark[]) =>
		marks
			.map(({ metric, ...mark }) =>
				words.say('report.steps.cell', {
					metric: boardName(metric, words),
					word: boardWord({ metric, ...mark }, words)
				})
			)
			.join('; ');
	// Of a log on a sample a table for each page.
	const tables = view.rows[0]!.strips.map(({ key, name }) => ({
		title: name,
		head: (['what', 'previous', 'start', 'decision'] as const).map((column) => words.say(`report.steps.${column}`)),
		rows: view.rows.map((row) => {
			const strips = row.strips.find((candidate) => candidate.key === key)!;
			const [first, second] = row.stage === 0 ? [strips.figure, ''] : [told(strips.previous), told(strips.start)];
			const previous = [strips.held || first, strips.returned].filter(Boolean).join(' ');
			const decision = row.stage === 0 ? '' : words.say(`report.steps.${row.decision}`);
			return {
				cells: [
					row.name,
					localNumber(previous, words.language),
					strips.held ? '' : localNumber(second, words.language),
					[decision, row.decisionNote].filter(Boolean).join(': ')
				]
			};
		})
	}));
	return { kind: 'tables', tables, about: '' };
};

export const scoreBlock: TrialBlock = (material, trial) => {
	const { words } = material;
	const scores = trial.judgement.results.filter(({ metric, primary, shift }) => metric === 'score' && primary && shift);
	if (!scores.length) return missing(material, 'score');
	if (!trial.evidence) return missing(material, 'evidence');
	const rows = scores
		.filter(({ scale }) => scale === 'unit')
		.map((result) => {
			const names = namesOf(trial.design, result);
			const parts = trial
				.evidence!.arms.find(({ condition, arm }) => condition === result.condition && arm === result.arm)
				?.why?.breakdowns.find(({ metric }) => metric === 'score')?.parts;
			return {
				title: `${names.conditions}: ${names.arm}`,
				before: material.cite(trial.trial.id, result, 'baseline'),
				after: material.cite(trial.trial.id, result, 'variant'),
				shift: material.cite(trial.trial.id, result, 'shift'),
				parts: (parts ?? []).filter(isSeen).map(({ key, shift }) => ({
					name: boardName(key as keyof typeof LAB_RECIPE.weights, words),
					points: shift,
					text: `${shift > 0 ? '+' : shift < 0 ? '−' : ''}${localNumber(Math.abs(shift).toFixed(1), words.language)}`
				})),
				about: words.say('report.score.about', { recipe: trial.judgement.recipe })
			};
		});
	return rows.length ? { kind: 'score', rows } : missing(material, 'score');
};

/** What rounds to no tenth of a point is not listed. */
const isSeen = ({ shift }: { shift: number }) => Math.abs(shift) >= 0.05;

/** Loads of each variant in the two metrics that a trial decides on first. */
const PLOTTED = 2;

export const estimationBlock: TrialBlock = (material, trial) => {
	const { design, judgement, loads } = trial;
	const counted = countedLoads(design, loads);
	const shown = judgement.results.filter(({ primary, shift, scale }) => primary && shift && scale === 'unit');
	const metrics = [...new Set(shown.map(({ metric }) => metric))].slice(0, PLOTTED);
	const plots = shown
		.filter(({ metric }) => metrics.includes(metric))
		.map((result) => plotOf(material, trial, result, counted));
	return plots.length ? { kind: 'estimation', plots } : missing(material, 'judged');
};

function plotOf(
	material: Material,
	{ trial, design }: TrialMaterial,
	result: ShiftResult,
	counted: ReturnType<typeof countedLoads<TrialMaterial['loads'][number]>>
) {
	const names = namesOf(design, result);
	const { unit } = metricOf(result.metric);
	const side = (id: number, name: string, part: 'baseline' | 'variant') => ({
		name,
		colour: armColour(design.arms, id),
		values: counted
			.filter(({ armId, conditionId }) => armId === id && conditionId === result.condition)
			.flatMap(({ figures }) => figures[result.metric] ?? []),
		middle: material.cite(trial.id, result, part)
	});
	return {
		title: `${boardName(result.metric, material.words)}, ${names.conditions}`,
		unit,
		arms: [side(result.baseline, names.baseline, 'baseline'), side(result.arm, names.arm, 'variant')],
		shift: wordShiftIn(result, material.words)
	};
}

export const framesBlock: TrialBlock = (material, { design, evidence }) => {
	if (!evidence) return missing(material, 'evidence');
	const armName = (id: number) => design.arms.find((arm) => arm.id === id)?.name ?? '';
	const strips = design.conditions.flatMap(({ id, name }) => {
		const films = evidence.films.filter(({ condition, frames }) => condition === id && frames.length);
		if (!films.length) return [];
		const times = columnsOfFilms(films);
		return [
			{
				title: name,
				times: times.map((time) => localNumber(formatDuration(time), material.words.language)),
				arms: films.map((film) => ({
					name: armName(film.arm),
					pictures: times.map((time) => {
						const alt = `${armName(film.arm)}, ${localNumber(formatDuration(time), material.words.language)}`;
						return { key: frameKey(film, time), alt, width: film.width, height: film.height };
					})
				}))
			}
		];
	});
	return strips.length ? { kind: 'frames', strips } : missing(material, 'frames');
};

/** A load of the appendix, with the figures that the trial decides on. */
export const appendixBlock: TrialBlock = ({ words }, { design, loads }) => ({
	kind: 'tables',
	tables: appendixTables(design, loads, words),
	about: ''
});
