/** The rows of a shift board in words and figures. */
import type { PutOff } from '../compare/late/putOff';
import type { MetricId } from '../metrics/catalogue';
import { boardMark, type BoardMark } from '../trial/judge/board';
import type { ShiftResult } from '../trial/types';
import { formatValue } from './format';
import { judgementWord } from './headline';
import { plainName } from './plainNames';
import { wordAnswer, type Names } from './shift';
import { ENGLISH, type Words } from './words';

export interface BoardRow extends BoardMark {
	/** "Blocking time" */
	name: string;
	/** Middle figures as printed. */
	baseline: string;
	arm: string;
	/** "84, 79 to 88 in 8" of each side; empty where it is not known. */
	ranges: { baseline: string; arm: string };
	/** "slower", "undecided" */
	word: string;
	/** The row as a sentence with its interval: what a pointer, the keyboard and a screen reader get. */
	text: string;
}

/**
 * @param putOff how its gain comes back; null where it stays
 * @param ranges of the figures behind both middle ones
 */
export function boardRow(
	result: ShiftResult,
	names: Names,
	words: Words = ENGLISH,
	putOff: PutOff | null = null,
	ranges = { baseline: '', arm: '' }
): BoardRow {
	const mark = { ...boardMark(result), ...(putOff ? { isPutOff: true } : {}) };
	const { metric } = result;
	const name = boardName(metric, words);
	return {
		...mark,
		name,
		baseline: result.scale === 'share' ? '' : formatValue(metric, result.baselineMedian),
		arm: result.scale === 'share' ? '' : formatValue(metric, result.armMedian),
		word: putOff ? words.say(`board.put-off.${putOff.kind}`) : boardWord(mark, words),
		ranges,
		text: wordAnswer(result, names)
	};
}

/** A metric as the head of a row: "Largest paint", "Bytes". */
export function boardName(metric: MetricId, words: Words = ENGLISH): string {
	const name = metric === 'wire' ? words.say('board.wire') : plainName(metric, words);
	return name.charAt(0).toUpperCase() + name.slice(1);
}

/** A mark in a word: its verdict, and that nothing moved at all. */
export function boardWord({ metric, verdict, inMargins, isExact }: BoardMark, words: Words = ENGLISH): string {
	if (verdict === 'better' || verdict === 'worse') return judgementWord({ metric }, verdict === 'better', words);
	if (verdict === 'slight') {
		const word = judgementWord({ metric }, (inMargins?.estimate ?? 0) < 0, words);
		return words.say('board.slight', { word });
	}
	if (verdict === 'same' && isExact && inMargins?.estimate === 0) return words.say('board.exact');
	return words.say(`board.${verdict}`);
}
