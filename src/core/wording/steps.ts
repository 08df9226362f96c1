/** A log of steps in words: whether the page came back, and what its first figures were. */
import { metricOf, type MetricId } from '../metrics/catalogue';
import type { ShiftResult } from '../trial/types';
import { formatIn, formatValue } from './format';
import { plainList } from './plainNames';
import { wordAnswer, type Names } from './shift';
import { ENGLISH, type Words } from './words';

/**
 * Whether a page is where it was, once a step was taken back.
 * @param results of the stage without the step against the one before the step, under one set of conditions
 */
export function wordReturned(results: readonly ShiftResult[], names: Names, words: Words = ENGLISH): string {
	const primary = results.filter((result) => result.primary);
	const moved = primary.filter(({ verdict }) => verdict === 'better' || verdict === 'worse' || verdict === 'slight');
	if (moved.length)
		return words.say('step.not-back', { shifts: moved.map((result) => wordAnswer(result, names)).join(' ') });
	const open = primary.filter(({ verdict }) => verdict !== 'same');
	return open.length ? words.say('step.perhaps-back', { metrics: plainList(open, words) }) : words.say('step.back');
}

/** "84, 79 to 88 in 8": the middle of several figures with the least and the most of them; empty without figures. */
export function wordRange(metric: MetricId, figures: readonly number[], words: Words = ENGLISH): string {
	if (!figures.length) return '';
	const sorted = [...figures].sort((a, b) => a - b);
	const half = sorted.length / 2;
	const middle = sorted.length % 2 ? sorted[Math.floor(half)]! : (sorted[half - 1]! + sorted[half]!) / 2;
	const [least, most] = [sorted[0]!, sorted.at(-1)!];
	const told = formatValue(metric, middle);
	if (formatValue(metric, least) === formatValue(metric, most))
		return words.say('range.same', { middle: told, n: sorted.length });
	return words.say('range.some', {
		middle: told,
		least: formatIn(metricOf(metric).unit, least),
		most: formatIn(metricOf(metric).unit, most),
		n: sorted.length
	});
}
