/**
 * How often visitors did what the client wants, by how fast their page was. An association: visitors with fast pages
 * have other devices, networks and minds, too.
 */
import { metricOf } from '../metrics/catalogue';
import { normalQuantile } from '../stats/normal';
import { shareBelow, weightOf, type Histogram } from './histogram';

export const SPEED_BANDS = ['good', 'needs-improvement', 'poor'] as const;
export type SpeedBand = (typeof SPEED_BANDS)[number];

export interface BandOutcome {
	band: SpeedBand;
	/** Page views, and those that reached the goal. */
	views: number;
	reached: number;
	/** 0 to 1; null without page views. */
	rate: number | null;
	/** Wilson's score interval, 95 %. */
	low: number;
	high: number;
}

/**
 * @param all LCP of all page views
 * @param reached LCP of those that reached the goal
 */
export function outcomeByLcp(all: Histogram, reached: Histogram): BandOutcome[] {
	const [views, goals] = [countsByBand(all), countsByBand(reached)];
	return SPEED_BANDS.map((band, i) => {
		const [n, k] = [views[i]!, Math.min(goals[i]!, views[i]!)];
		const [low, high] = wilson(k, n);
		return { band, views: n, reached: k, rate: n === 0 ? null : k / n, low, high };
	});
}

/** Whole page views by the thresholds of LCP: a bin that holds a threshold is parted. */
function countsByBand(histogram: Histogram): number[] {
	const { good, poor } = metricOf('lcp').thresholds!;
	const all = weightOf(histogram);
	const upTo = [good, poor].map((value) => Math.round(all * shareBelow('lcp', histogram, value)));
	return [upTo[0]!, upTo[1]! - upTo[0]!, all - upTo[1]!];
}

/**
 * Interval of a share (Wilson 1927; Brown, Cai and DasGupta 2001 advise it).
 * @param k successes @param n trials @returns 0 to 1 for no trials
 */
export function wilson(k: number, n: number, level = 0.95): [low: number, high: number] {
	if (n === 0) return [0, 1];
	const z = normalQuantile(1 - (1 - level) / 2);
	const middle = (k + z ** 2 / 2) / (n + z ** 2);
	const reach = (z / (n + z ** 2)) * Math.sqrt((k * (n - k)) / n + z ** 2 / 4);
	return [Math.max(0, middle - reach), Math.min(1, middle + reach)];
}
