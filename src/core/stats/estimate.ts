/** What every estimator of a shift returns. */
export interface Estimate {
	/** Point estimate, in the unit of the data. */
	estimate: number;
	/** Lower end of the interval; -Infinity where so few values cannot give one at this level. */
	low: number;
	/** Upper end of the interval; Infinity where so few values cannot give one at this level. */
	high: number;
	/** Two-sided p of "no shift". */
	p: number;
	/** Number of pairs (paired) or of values in both samples (two samples) behind it. */
	n: number;
}

/** Midranks (1-based; ties share their mean rank) of values, doubled so that they are whole numbers. */
export function doubledMidranks(values: readonly number[]): number[] {
	const order = values.map((value, index) => ({ value, index })).sort((a, b) => a.value - b.value);
	const ranks = new Array<number>(values.length);
	for (let start = 0; start < order.length;) {
		let end = start;
		while (end + 1 < order.length && order[end + 1]!.value === order[start]!.value) end++;
		for (let i = start; i <= end; i++) ranks[order[i]!.index] = start + end + 2;
		start = end + 1;
	}
	return ranks;
}

/** Sum over groups of equal ranks of (t^3 - t): the tie correction of rank tests. */
export function tieSum(ranks: readonly number[]): number {
	const sizes = new Map<number, number>();
	for (const rank of ranks) sizes.set(rank, (sizes.get(rank) ?? 0) + 1);
	let sum = 0;
	for (const size of sizes.values()) sum += size ** 3 - size;
	return sum;
}
