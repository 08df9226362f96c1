/** What a reading knows of one figure: the middle of its loads, how they scatter, and how many there were. */
import { ascending, mean, quantileSorted } from '../stats/summary';

export interface Block {
	/** Hodges-Lehmann estimate of one sample: the median of the means of all pairs. In the metric's unit. */
	middle: number;
	/** Variance of single loads about their mean; 0 of a single load. */
	variance: number;
	/** Loads that count. */
	loads: number;
	/** Variance of the middle that a correction brought with it; missing where nothing was corrected. */
	added?: number;
}

/** @returns null without a load that counts */
export function blockOf(figures: readonly number[]): Block | null {
	if (!figures.length) return null;
	const centre = mean(figures);
	const squares = figures.reduce((sum, figure) => sum + (figure - centre) ** 2, 0);
	return {
		middle: pseudoMedian(figures),
		variance: figures.length > 1 ? squares / (figures.length - 1) : 0,
		loads: figures.length
	};
}

/** Median of the Walsh averages (Hodges and Lehmann 1963): nearly as sharp as the mean, and no outlier moves it far. */
export function pseudoMedian(values: readonly number[]): number {
	const averages = values.flatMap((value, i) => values.slice(i).map((other) => (value + other) / 2));
	return quantileSorted(ascending(averages), 0.5);
}
