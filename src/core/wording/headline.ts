/** The worst that can be said of an answer, the lab's own noise in words, and what a change is called. */
import { metricOf } from '../metrics/catalogue';
import type { ShiftResult } from '../trial/types';
import { formatIn } from './format';
import { plainList, plainName } from './plainNames';
import { describeReason } from './reasons';
import type { MessageKey } from './messages/en';
import type { Words } from './words';

/** Of the primary metrics of a variant: colours its line. */
export type Tone = 'better' | 'worse' | 'mixed' | 'slight' | 'same' | 'undecided' | 'none';

function reasonOf(results: readonly ShiftResult[], words: Words): string {
	const reason = results.find((result) => result.reason)?.reason;
	return reason ? describeReason(reason, words) : words.say('reason.no-look');
}

const isDifference = ({ verdict }: ShiftResult) => verdict === 'better' || verdict === 'worse' || verdict === 'slight';

/** Two runs of the same page: any difference is the lab's own. */
export function describeNoise(results: readonly ShiftResult[], words: Words): { text: string; tone: Tone } {
	if (results.every((result) => result.verdict === 'none'))
		return { text: words.say('answer.noise.none', { reason: reasonOf(results, words) }), tone: 'none' };
	const differing = results.filter(isDifference);
	if (differing.length)
		return { text: words.say('answer.noise.differs', { metrics: plainList(differing, words) }), tone: 'worse' };
	const open = results.filter((result) => result.verdict === 'undecided');
	const more = open.length ? words.say('answer.noise.more', { metrics: plainList(open, words) }) : '';
	const floor = results.flatMap((result) => floorOf(result, words)).join(', ');
	return { text: words.say('answer.noise.floor', { floor, more }), tone: open.length ? 'undecided' : 'same' };
}

/** "largest paint 90 ms": what the interval leaves open; nothing without one. */
function floorOf({ metric, shift }: ShiftResult, words: Words): string[] {
	if (shift?.low == null || shift.high === null) return [];
	const largest = Math.max(Math.abs(shift.low), Math.abs(shift.high));
	return [`${plainName(metric, words)} ${formatIn(metricOf(metric).unit, largest, true)}`];
}

/**
 * "faster" or "slower": what a metric's change for the better or the worse is called.
 * @param metrics names them, where the word alone would claim more: "faster in blocking time"
 */
export function judgementWord(
	{ metric }: Pick<ShiftResult, 'metric'>,
	isBetter: boolean,
	words: Words,
	metrics = ''
): string {
	const key = `verdict.${metricOf(metric).words[isBetter ? 0 : 1]}` as Extract<MessageKey, `verdict.${string}`>;
	return metrics ? words.say('answer.word-in', { word: words.say(key), metrics }) : words.say(key);
}
