/** Shapes that most metrics of the catalogue share. */
import type { JudgementWords, Margin, MetricId, Thresholds } from './metric';

export const TIME: JudgementWords = ['faster', 'slower'];
const WEIGHT: JudgementWords = ['lighter', 'heavier'];

export function time<Id extends MetricId>(
	id: Id,
	name: string,
	short: string,
	margin: Margin,
	definition: string,
	source: string,
	thresholds: Thresholds | null = null,
	words = TIME
) {
	return { id, name, short, unit: 'ms', higherIsBetter: false, words, thresholds, margin, definition, source } as const;
}

export function amount<Id extends MetricId>(
	id: Id,
	name: string,
	short: string,
	unit: 'bytes' | 'count',
	margin: Margin,
	definition: string,
	source: string
) {
	return {
		id,
		name,
		short,
		unit,
		higherIsBetter: false,
		words: WEIGHT,
		thresholds: null,
		margin,
		definition,
		source
	} as const;
}
