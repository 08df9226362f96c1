/**
 * The smallest set of causes that brings all pages within a target that computed savings can reach: that of bytes. What
 * a mend brings in time is not known before it is tried: no way is told for metrics of time.
 */

/** A page under one set of conditions that is over its target. */
export interface Over {
	/** Bytes beyond the target. */
	excess: number;
	/** Bytes that mending a cause saves here, by the cause's key. */
	savings: ReadonlyMap<string, number>;
}

export interface Way {
	/** Keys of causes, the one that saves most first. */
	causes: string[];
	/** No smaller set reaches it; else one was looked for step by step, and a smaller one may exist. */
	isSmallest: boolean;
}

/** Sets up to this size are all tried (house): beyond, the search takes longer than anybody waits. */
const MOST_TRIED = 4;
const MOST_SETS = 200_000;

/**
 * Files that two causes name are counted by each: their savings may overlap, so that a way is a plan, not a promise.
 * @returns null where all causes together do not reach it @throws RangeError for an excess that is not above 0
 */
export function shortestWay(pages: readonly Over[]): Way | null {
	if (pages.some(({ excess }) => !(excess > 0))) throw new RangeError('A page that is over has an excess above 0.');
	const all = [...new Set(pages.flatMap(({ savings }) => [...savings.keys()]))].sort(
		(a, b) => totalOf(pages, b) - totalOf(pages, a) || a.localeCompare(b)
	);
	if (!pages.length || !reaches(pages, all)) return null;
	for (let size = 1; size <= Math.min(MOST_TRIED, all.length); size++) {
		if (setsOf(all.length, size) > MOST_SETS) break;
		const found = firstOf(pages, all, size);
		if (found) return { causes: found, isSmallest: true };
	}
	return { causes: stepByStep(pages, all), isSmallest: false };
}

const reaches = (pages: readonly Over[], set: readonly string[]): boolean =>
	pages.every(({ excess, savings }) => set.reduce((sum, key) => sum + (savings.get(key) ?? 0), 0) >= excess);

const totalOf = (pages: readonly Over[], key: string): number =>
	pages.reduce((sum, { savings }) => sum + (savings.get(key) ?? 0), 0);

function setsOf(n: number, k: number): number {
	let sets = 1;
	for (let i = 0; i < k; i++) sets = (sets * (n - i)) / (i + 1);
	return sets;
}

/** In the order of `all`, so that of two sets of one size the one that saves more is found first. */
function firstOf(pages: readonly Over[], all: readonly string[], size: number): string[] | null {
	const choose = (from: number, chosen: readonly string[]): string[] | null => {
		if (chosen.length === size) return reaches(pages, chosen) ? [...chosen] : null;
		for (let i = from; i <= all.length - (size - chosen.length); i++) {
			const found = choose(i + 1, [...chosen, all[i]!]);
			if (found) return found;
		}
		return null;
	};
	return choose(0, []);
}

/** The cause that takes most of what is still over, again and again. */
function stepByStep(pages: readonly Over[], all: readonly string[]): string[] {
	const chosen: string[] = [];
	const left = pages.map(({ excess }) => excess);
	const gainOf = (key: string) =>
		pages.reduce((sum, { savings }, i) => sum + Math.min(Math.max(0, left[i]!), savings.get(key) ?? 0), 0);
	while (left.some((over) => over > 0)) {
		const best = all.filter((key) => !chosen.includes(key)).reduce((a, b) => (gainOf(b) > gainOf(a) ? b : a));
		chosen.push(best);
		pages.forEach(({ savings }, i) => (left[i]! -= savings.get(best) ?? 0));
	}
	return chosen;
}
