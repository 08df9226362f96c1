/**
 * Whether a figure was moving before the release already. A slow drift of the page's own, which its control does not
 * share, goes on after a release and looks like its doing. So the slope before is fitted, and what it would have come
 * to by itself is set against the step.
 */
import { mean } from '../../stats/summary';

export interface Trend {
	/** What the slope alone would have moved the figure by between both sides, on the log scale. */
	shift: number;
	error: number;
	/** Slope on the log scale. */
	aWeek: number;
}

/** Fewer days show no slope. */
const LEAST_DAYS = 14;
/** Days that hang together more than this tell next to nothing of a slope. */
const MOST_KEPT = 0.9;

/**
 * Least squares over days; days that hang together tell less, by the first correlation of what is left (Bartlett 1946).
 * @param logs day by day up to the release; NaN for a day without visits
 * @param distance days between the middles of both sides
 * @returns null for too few days
 */
export function trendOfDays(logs: readonly number[], distance: number): Trend | null {
	const finite = logs.flatMap((log, day) => (Number.isFinite(log) ? [{ day, log }] : []));
	if (finite.length < LEAST_DAYS) return null;
	const [centre, level] = [mean(finite.map(({ day }) => day)), mean(finite.map(({ log }) => log))];
	const spread = finite.reduce((sum, { day }) => sum + (day - centre) ** 2, 0);
	const slope = finite.reduce((sum, { day, log }) => sum + (day - centre) * (log - level), 0) / spread;
	const rest = finite.map(({ day, log }) => log - level - slope * (day - centre));
	const squares = rest.reduce((sum, value) => sum + value ** 2, 0);
	const products = rest.slice(1).reduce((sum, value, i) => sum + value * rest[i]!, 0);
	const kept = squares > 0 ? Math.min(MOST_KEPT, Math.max(0, products / squares)) : 0;
	const variance = (squares / (finite.length - 2)) * ((1 + kept) / (1 - kept));
	const error = Math.sqrt(variance / spread);
	return { shift: slope * distance, error: error * distance, aWeek: 7 * slope };
}
