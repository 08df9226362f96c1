/**
 * How readings of one figure of one page scatter beyond what their loads do: each for itself, since bytes that come
 * from an ad are steady within a reading and other ones the next week, while a paint scatters with every load. One page
 * shows too little of it in a few weeks, so that it is shrunk towards what the same metric does on all watched pages:
 * the more, the more alike those pages are (empirical Bayes for variances, after Smyth 2004).
 */
import { normalCdf } from '../stats/normal';
import type { Block } from './block';

/** What one figure shows of its own scatter, as shares of its level squared. */
export interface OwnScatter {
	/** Estimate of the variance between readings; below zero where they differ by less than their loads let expect. */
	between: number;
	/** Of a reading's middle, by its loads: the mean over the readings. */
	within: number;
	/** Readings behind it, less one for each level. */
	freedom: number;
}

/** Of one figure, after what the others know of the metric. */
export interface Scatter {
	/** Variance between readings as a share of the level squared, never below zero. */
	between: number;
	/** How many free readings that estimate is worth. */
	freedom: number;
}

/**
 * By the method of moments (DerSimonian and Laird 1986): squares about the level of each part, less what the loads let
 * expect of them.
 * @param parts readings without a step in them; one part for each level
 * @returns null where no part has two readings
 */
export function ownScatter(
	parts: readonly (readonly Block[])[],
	withinOf: (block: Block) => number
): OwnScatter | null {
	let [squares, expected, freedom, within, readings] = [0, 0, 0, 0, 0];
	for (const part of parts) {
		if (part.length < 2) continue;
		const centre = part.reduce((sum, { middle }) => sum + middle, 0) / part.length;
		if (centre === 0) continue;
		const size = centre ** 2;
		for (const block of part) {
			squares += (block.middle - centre) ** 2 / size;
			within += withinOf(block) / size;
			expected += (((part.length - 1) / part.length) * withinOf(block)) / size;
		}
		freedom += part.length - 1;
		readings += part.length;
	}
	return freedom > 0 ? { between: (squares - expected) / freedom, within: within / readings, freedom } : null;
}

/** Readings that what is known of a metric is worth at least and at most. */
const LEAST_PRIOR = 2;
const MOST_PRIOR = 60;

/** What a metric does on all pages that are watched. */
export interface MetricScatter {
	between: number;
	/** How many readings of one page that is worth: few where pages differ. */
	freedom: number;
}

export function metricScatter(all: readonly OwnScatter[]): MetricScatter | null {
	const repeated = all.filter(({ freedom }) => freedom > 0);
	const total = repeated.reduce((sum, { freedom }) => sum + freedom, 0);
	if (!total) return null;
	const between = Math.max(0, repeated.reduce((sum, scatter) => sum + scatter.freedom * scatter.between, 0) / total);
	const spread = repeated.reduce((sum, scatter) => sum + scatter.freedom * (scatter.between - between) ** 2, 0);
	const chance = repeated.reduce((sum, scatter) => sum + scatter.freedom * varianceOf(scatter, between), 0);
	const beyond = Math.max(0, spread - chance) / total;
	// A scaled inverse chi-squared about the mean has 2 / freedom as the square of its relative spread.
	const alike = beyond > 0 ? (2 * between ** 2) / beyond : MOST_PRIOR;
	return { between, freedom: Math.min(MOST_PRIOR, total, Math.max(LEAST_PRIOR, alike)) };
}

/** Of the estimate, when the truth is `between`. */
const varianceOf = ({ within, freedom }: OwnScatter, between: number): number =>
	(2 * (within + between) ** 2) / freedom;

/** @param own null where the figure has too few readings of its own */
export function shrunk(own: OwnScatter | null, metric: MetricScatter | null): Scatter {
	if (!own && !metric) return { between: 0, freedom: 0 };
	const prior = metric ?? { between: Math.max(0, own!.between), freedom: 0 };
	if (!own) return prior;
	const freedom = prior.freedom + own.freedom;
	const estimate = (prior.freedom * prior.between + own.freedom * own.between) / freedom;
	const error = Math.sqrt(varianceOf({ ...own, freedom }, Math.max(0, estimate)));
	return { between: positiveMean(estimate, error), freedom };
}

/** Mean of a normal value about an estimate that is known to be positive: the less certain, the larger. */
function positiveMean(estimate: number, error: number): number {
	if (error === 0) return Math.max(0, estimate);
	const z = estimate / error;
	const density = Math.exp(-(z ** 2) / 2) / Math.sqrt(2 * Math.PI);
	const above = normalCdf(z);
	// Far below zero the tail's mean is about error / |z|; the quotient itself loses its digits there.
	return above < 1e-9 ? error / Math.abs(z) : estimate + (error * density) / above;
}
