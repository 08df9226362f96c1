/** What a reading knows of one figure: the middle of its loads, how they scatter, and how many there were. */
import { quickselect } from 'd3-array';
import { mean } from '../stats/summary';

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
	const averages = new Float64Array((values.length * (values.length + 1)) / 2);
	let at = 0;
	for (let i = 0; i < values.length; i++)
		for (let j = i; j < values.length; j++) averages[at++] = (values[i]! + values[j]!) / 2;
	const middle = (averages.length - 1) / 2;
	const upper = quickselect(averages, Math.ceil(middle))[Math.ceil(middle)]!;
	return Number.isInteger(middle)
		? upper
		: (upper + quickselect(averages, Math.floor(middle))[Math.floor(middle)]!) / 2;
}
