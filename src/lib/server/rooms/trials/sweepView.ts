/** A sweep as its sheet shows it: pages by visitor states, each with its strips and what broke there. */
import { hasPages } from '$core/trial/design/kinds';
import { sweepTable } from '$core/trial/design/sweep';
import { metricOf } from '$core/metrics/catalogue';
import type { TrialDesign } from '$core/trial/types';
import type { ConditionsBoard } from './boardView';

/** Null for another kind of trial, and before the first look. */
export function sweepView(design: TrialDesign, boards: readonly ConditionsBoard[]) {
	if (!hasPages(design.kind) || !boards.some(({ answers }) => answers.length)) return null;
	const { states, rows } = sweepTable(design);
	return {
		states,
		metrics: design.primary.map((metric) => metricOf(metric).short),
		rows: rows.map(({ page, cells }) => ({
			page,
			cells: cells.map((cell) => cell && { ...cell, strips: boards.flatMap((board) => stripOf(board, cell.arm)) })
		}))
	};
}

function stripOf({ condition, name, answers }: ConditionsBoard, arm: number) {
	const answer = answers.find((candidate) => candidate.arm === arm);
	if (!answer) return [];
	const marks = answer.rows.map((row) => ({ ...row, short: metricOf(row.metric).short }));
	const { broke, held, restsOn } = answer.caveats;
	return [{ condition, name, sentence: answer.sentence, marks, broke, notes: [held, ...restsOn].filter(Boolean) }];
}

export type SweepView = NonNullable<ReturnType<typeof sweepView>>;
