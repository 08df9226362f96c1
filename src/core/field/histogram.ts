/**
 * Histograms of what visitors had: bins on a log scale, so that any quantile is off by at most 2 % of its value, and
 * two histograms add up to that of both (the bins are the same everywhere). House.
 */

/** Bins grow by this factor: the middle of a bin is then within e = 2 % of all that is in it, (1 + e) / (1 - e). */
export const GROWTH = 1.02 / 0.98;
/** Values below this count as zero: a tenth of a ms, and a layout shift that nobody sees. */
const LEAST: Record<FieldMetric, number> = { lcp: 0.1, inp: 0.1, cls: 1e-4, fcp: 0.1, ttfb: 0.1 };

export const FIELD_METRICS = ['lcp', 'inp', 'cls', 'fcp', 'ttfb'] as const;
export type FieldMetric = (typeof FIELD_METRICS)[number];

/** Weight by bin: visits, or shares of them. Bin -1 holds zero. */
export type Histogram = ReadonlyMap<number, number>;

const LOG_GROWTH = Math.log(GROWTH);

export function binOf(metric: FieldMetric, value: number): number {
	return value < LEAST[metric] ? -1 : Math.floor(Math.log(value / LEAST[metric]) / LOG_GROWTH);
}

/** Where a bin begins, in the metric's unit. */
export function binStart(metric: FieldMetric, bin: number): number {
	return bin < 0 ? 0 : LEAST[metric] * GROWTH ** bin;
}

/** The value that stands for all in a bin: no other is nearer, in shares of itself, to both of its ends. */
export function binValue(metric: FieldMetric, bin: number): number {
	if (bin < 0) return 0;
	const [from, to] = [binStart(metric, bin), binStart(metric, bin + 1)];
	return (2 * from * to) / (from + to);
}

export function histogramOf(metric: FieldMetric, values: Iterable<number>): Histogram {
	const counts = new Map<number, number>();
	for (const value of values) {
		const bin = binOf(metric, value);
		counts.set(bin, (counts.get(bin) ?? 0) + 1);
	}
	return counts;
}

export function mergeHistograms(histograms: Iterable<Histogram>): Histogram {
	const all = new Map<number, number>();
	for (const histogram of histograms) for (const [bin, weight] of histogram) all.set(bin, (all.get(bin) ?? 0) + weight);
	return all;
}

export function weightOf(histogram: Histogram): number {
	let sum = 0;
	for (const weight of histogram.values()) sum += weight;
	return sum;
}

/**
 * The smallest value below or at which a share of the visits lies.
 * @param share 0 to 1
 * @returns null for an empty histogram
 */
export function quantileOf(metric: FieldMetric, histogram: Histogram, share: number): number | null {
	const total = weightOf(histogram);
	if (total === 0) return null;
	let below = 0;
	for (const [bin, weight] of [...histogram].sort(([a], [b]) => a - b)) {
		below += weight;
		// Sums of shares miss their whole by rounding.
		if (below >= share * total * (1 - 1e-12)) return binValue(metric, bin);
	}
	return null;
}

/** Share of the visits at or below a value; a bin that holds it is parted evenly on its log scale. */
export function shareBelow(metric: FieldMetric, histogram: Histogram, value: number): number {
	const total = weightOf(histogram);
	if (total === 0) return 0;
	let below = 0;
	for (const [bin, weight] of histogram) {
		const [from, to] = [binStart(metric, bin), binStart(metric, bin + 1)];
		if (to <= value || bin < 0) below += weight;
		else if (from < value) below += (weight * Math.log(value / from)) / LOG_GROWTH;
	}
	return below / total;
}
