/** Shapes that most metrics of the catalogue share. */
import type { JudgementWords, Margin, MetricId, Thresholds } from './metric';

export const TIME: JudgementWords = ['faster', 'slower'];
const WEIGHT: JudgementWords = ['lighter', 'heavier'];

interface Defined<Id extends MetricId> {
	id: Id;
	name: string;
	short: string;
	margin: Margin;
	source: string;
}

type TimeMetric<Id extends MetricId> = Defined<Id> & { thresholds?: Thresholds; words?: JudgementWords };

export const time = <Id extends MetricId>({ thresholds, words = TIME, ...metric }: TimeMetric<Id>) =>
	({ ...metric, unit: 'ms', higherIsBetter: false, words, thresholds: thresholds ?? null }) as const;

export const amount = <Id extends MetricId>(metric: Defined<Id> & { unit: 'bytes' | 'count' }) =>
	({ ...metric, higherIsBetter: false, words: WEIGHT, thresholds: null }) as const;
