/** A log of steps in words: whether the page came back, and what its first figures were. */
import type { ShiftResult } from '../trial/types';
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
