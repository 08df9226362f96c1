/** Order statistics and robust spread. All functions take plain arrays and leave them as they are. */

/** A copy in ascending order. */
export function ascending(values: readonly number[]): number[] {
	return [...values].sort((a, b) => a - b);
}

/**
 * Quantile by linear interpolation between order statistics (type 7 of Hyndman and Fan, 1996).
 * @param sorted values in ascending order, at least one
 * @param share 0 to 1
 * @throws RangeError for no values
 */
export function quantileSorted(sorted: readonly number[], share: number): number {
	if (sorted.length === 0) throw new RangeError('A quantile needs at least one value.');
	const position = (sorted.length - 1) * Math.min(1, Math.max(0, share));
	const below = Math.floor(position);
	const above = Math.min(below + 1, sorted.length - 1);
	const low = sorted[below]!;
	return low + (sorted[above]! - low) * (position - below);
}

/** The middle value, or the mean of the two middle ones. @throws RangeError for no values */
export function median(values: readonly number[]): number {
	return quantileSorted(ascending(values), 0.5);
}

/** Median, or null for no values. */
export function medianOrNull(values: readonly number[]): number | null {
	return values.length ? median(values) : null;
}

/** The least and the most; empty for no values. */
export function extentOf(values: readonly number[]): number[] {
	return values.length ? [Math.min(...values), Math.max(...values)] : [];
}

export function mean(values: readonly number[]): number {
	if (values.length === 0) throw new RangeError('A mean needs at least one value.');
	return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** 1 / Phi^-1(3/4): makes the median absolute deviation estimate the standard deviation of normal data. */
const MAD_TO_SD = 1.482602218505602;

/** Median absolute deviation, scaled to estimate the standard deviation of normal data. Same unit as the values. */
export function scaledMad(values: readonly number[]): number {
	const centre = median(values);
	return MAD_TO_SD * median(values.map((value) => Math.abs(value - centre)));
}

/** Beyond how many scaled MADs a load is marked (house; the same cut as Iglewicz and Hoaglin, 1993). */
export const OUTLIER_CUT = 3.5;

/**
 * Which values lie beyond 3.5 scaled MADs from the median. They are marked, never dropped.
 * With a MAD of zero nothing is marked: there is no spread to judge by.
 */
export function outliers(values: readonly number[]): boolean[] {
	if (values.length < 4) return values.map(() => false);
	const centre = median(values);
	const spread = scaledMad(values);
	return values.map((value) => spread > 0 && Math.abs(value - centre) > OUTLIER_CUT * spread);
}
