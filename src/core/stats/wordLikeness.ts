/** How much two texts say the same. */
import { union } from 'd3-array';

/**
 * Share of words that two texts have in common (multiset Jaccard): 1 for two texts of the same words in any order. Null
 * when neither has any.
 */
export function wordLikeness(a: string, b: string): number | null {
	const [first, second] = [countWords(a), countWords(b)];
	if (!first.size && !second.size) return null;
	let shared = 0;
	let all = 0;
	for (const word of union(first.keys(), second.keys())) {
		shared += Math.min(first.get(word) ?? 0, second.get(word) ?? 0);
		all += Math.max(first.get(word) ?? 0, second.get(word) ?? 0);
	}
	return shared / all;
}

function countWords(text: string): Map<string, number> {
	const counts = new Map<string, number>();
	for (const word of text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []) counts.set(word, (counts.get(word) ?? 0) + 1);
	return counts;
}
