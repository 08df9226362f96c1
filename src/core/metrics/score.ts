/**
 * The score: 0 to 100 from several metrics, by a visible, versioned recipe (house).
 *
 * points(x) = 100 / (1 + (x / m)^k) with m = sqrt(good * poor) and k = ln 3 / ln(m / good), so that the
 * good anchor gives 75, the poor one 25 and their geometric mean 50.
 */
import { metricOf, type Figures, type MetricId } from './catalogue';

export interface Recipe {
	/** Name and version, stored with every score. */
	readonly version: string;
	readonly weights: Readonly<Partial<Record<MetricId, number>>>;
}

/** For loads in the lab, after what a visitor goes through: waiting, seeing, using, steadiness. House. */
export const LAB_RECIPE: Recipe = {
	version: 'zafra-2',
	weights: { ttfb: 10, fcp: 20, lcp: 30, tbt: 20, cls: 20 }
};

/** For readings from real visits. House. */
export const FIELD_RECIPE: Recipe = { version: 'zafra-field-1', weights: { lcp: 35, inp: 35, cls: 30 } };

/**
 * Points (0 to 100) for one value between its anchors. @throws RangeError for anchors not 0 < good < poor, or a
 * negative value.
 */
export function points(value: number, good: number, poor: number): number {
	if (!(good > 0 && poor > good))
		throw new RangeError('The anchors must be positive, the good one below the poor one.');
	if (!(value >= 0)) throw new RangeError(`A value to score must be zero or more, not ${value}.`);
	const middle = Math.sqrt(good * poor);
	const steepness = Math.log(3) / Math.log(middle / good);
	return 100 / (1 + (value / middle) ** steepness);
}

export interface ScorePart {
	metric: MetricId;
	weight: number;
	value: number | null;
	/** 0 to 100; null when the value is missing. */
	points: number | null;
	/** How many points of the whole score this metric costs; null when the value is missing. */
	cost: number | null;
}

export interface Score {
	recipe: string;
	/** 0 to 100, not rounded; null when a metric of the recipe is missing: it is never re-weighted silently. */
	value: number | null;
	parts: ScorePart[];
}

/** Score of one load's figures, with the points that each metric costs. */
export function scoreOf(figures: Readonly<Partial<Figures>>, recipe: Recipe = LAB_RECIPE): Score {
	const entries = Object.entries(recipe.weights) as [MetricId, number][];
	const total = entries.reduce((sum, [, weight]) => sum + weight, 0);
	const parts = entries.map(([metric, weight]): ScorePart => {
		const { thresholds } = metricOf(metric);
		if (!thresholds) throw new RangeError(`The recipe ${recipe.version} names ${metric}, which has no anchors.`);
		const value = figures[metric] ?? null;
		const gained = value === null ? null : points(value, thresholds.good, thresholds.poor);
		return { metric, weight, value, points: gained, cost: gained === null ? null : ((100 - gained) * weight) / total };
	});
	const missing = parts.some((part) => part.cost === null);
	return {
		recipe: recipe.version,
		value: missing ? null : 100 - parts.reduce((sum, part) => sum + (part.cost ?? 0), 0),
		parts
	};
}
