/** What a variant is called by its verdicts: "slower in largest paint, heavier and less stable". */
import { metricOf } from '../metrics/catalogue';
import type { ShiftResult } from '../trial/types';
import { judgementWord } from './headline';
import { plainList } from './plainNames';
import type { Words } from './words';

type Direction = 'better' | 'worse';

/** Metrics that share a word: "faster" speaks of every time. */
const familyOf = ({ metric }: Pick<ShiftResult, 'metric'>): string => metricOf(metric).words[0];

/** Speed is said first, then weight, then the rest; the score last. */
function rankOf({ metric }: Pick<ShiftResult, 'metric'>): number {
	const { unit } = metricOf(metric);
	return unit === 'ms' ? 0 : unit === 'bytes' || unit === 'count' ? 1 : unit === 'points' ? 3 : 2;
}

/**
 * Words of what is decided in one direction. A bare word claims all of its family: at least one is so, and every other
 * is so or the same. Else, and of a score always, it names its metrics. The score goes without saying where something
 * else is said.
 * @param results all that the trial decides on, of one variant under one set of conditions
 */
export function decidedWords(results: readonly ShiftResult[], direction: Direction, words: Words): string {
	const decided = results.filter(({ verdict }) => verdict === direction);
	const counted = decided.some(({ metric }) => metric !== 'score')
		? decided.filter(({ metric }) => metric !== 'score')
		: decided;
	return inFamilies(counted, words, (own) => {
		const family = results.filter((result) => familyOf(result) === familyOf(own[0]!));
		const isAll = family.every(({ verdict }) => verdict === direction || verdict === 'same');
		return judgementWord(own[0]!, direction === 'better', words, isAll && own[0]!.metric !== 'score' ? '' : named(own));
	});

	function named(own: readonly ShiftResult[]): string {
		return plainList(own, words);
	}
}

/** Of differences whose size is open: each with its direction and its metrics. */
export function slightWords(results: readonly ShiftResult[], words: Words): string {
	const slight = results.filter(({ verdict }) => verdict === 'slight');
	return words.list(
		[true, false].flatMap((isBetter) => {
			const own = slight.filter((result) => improved(result) === isBetter);
			const text = inFamilies(own, words, (family) =>
				judgementWord(family[0]!, isBetter, words, plainList(family, words))
			);
			return text ? [text] : [];
		})
	);
}

export const improved = ({ metric, shift }: Pick<ShiftResult, 'metric' | 'shift'>): boolean =>
	shift !== null && shift.estimate > 0 === metricOf(metric).higherIsBetter;

function inFamilies(
	results: readonly ShiftResult[],
	words: Words,
	wordOf: (family: readonly ShiftResult[]) => string
): string {
	const ordered = [...results].sort((a, b) => rankOf(a) - rankOf(b));
	const families = [...new Set(ordered.map(familyOf))];
	return words.list(families.map((family) => wordOf(ordered.filter((result) => familyOf(result) === family))));
}
