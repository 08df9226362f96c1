/** One look for a step in a series: where the newest so many readings lie after it. */
import { median } from '../stats/summary';
import type { Point } from './level';
import { correctedOf, pointsOf, shrunkScatter, type Known, type Series } from './series';
import { criticalZ, leastWithoutOne, middlesDiffer, stepOf, type Step } from './step';

/** Readings after a step at which it is looked for. */
export const LOOKS_AFTER = [2, 3, 4, 5, 8] as const;
/** Readings before a step without which none is called: of a page that nobody has seen before, and after a step. */
const LEAST_BEFORE = 5;
const LEAST_BEFORE_ANOTHER = 2;

export interface Looked {
	after: number;
	/** Readings before and after the step, as they would be in the newest lab. */
	before: Point[];
	later: Point[];
	step: Step;
	/** Readings that its standard error rests on. */
	freedom: number;
}

export function canLook(series: Series, after: number): boolean {
	const { from } = correctedOf(series);
	return series.blocks.length - after - from >= leastBefore(series);
}

function leastBefore(series: Series): number {
	return series.startsWithStep && series.start === correctedOf(series).from ? LEAST_BEFORE_ANOTHER : LEAST_BEFORE;
}

/** Readings of a page that nobody has seen before, without which no step can be called. */
export const LEAST_READINGS = LEAST_BEFORE + LOOKS_AFTER[0];

/** How many more readings there must be before the first look for a step. */
export function missingReadings(series: Series): number {
	const { from } = correctedOf(series);
	return Math.max(0, leastBefore(series) + LOOKS_AFTER[0] - (series.blocks.length - from));
}

export function lookAt(series: Series, after: number, scatterOfAll: Known): Looked | null {
	if (!canLook(series, after)) return null;
	const { from, blocks } = correctedOf(series);
	const split = series.blocks.length - after - from;
	const level = median(blocks.slice(0, split).map(({ middle }) => middle));
	const { between, freedom } = shrunkScatter(series, scatterOfAll, after);
	const points = pointsOf(series, scatterOfAll, between, level);
	const [before, later] = [points.slice(0, split), points.slice(split)];
	const step = stepOf(before, later);
	const share = between * level ** 2;
	// What is known of loads is as good as certain: of the error, only the readings' part is an estimate.
	const variance = Math.min(...later.map((point) => point.variance));
	return { after, before, later, step, freedom: share > 0 ? freedom * (variance / share) ** 2 : Infinity };
}

/** How the chance of a false call is shared. */
export interface Chance {
	/** Of any false call at this reading. */
	level: number;
	/** What is tested at this reading, and how much of it is of this page. */
	tests: number;
	ofPage: number;
}

/** Standard errors more for a step that was not found at once: further chances are paid for (simulated). */
const LATER_PENALTY = 0.5;
/**
 * A single bad week and an ordinary one after it must not pass for a change, over all that is tested of a page. What
 * tells them apart is the step without the reading that carries most of it, less half of how far the readings lie
 * apart: after a step that scatters about the step; after a bad week by 1.55 standard errors about -1.8, where it
 * passes most easily (one that is five standard errors worse; simulated).
 */
const LONE_LEVEL = 0.05;
const APART = 0.5;
const AFTER_A_BAD_WEEK = { mean: -1.8, spread: 1.55 };

export function standsOut({ after, before, later, step, freedom }: Looked, { level, tests, ofPage }: Chance): boolean {
	// An update of the lab at that very place: whose doing it was cannot be told.
	if (later[0]!.moved > 0) return false;
	const critical = criticalZ(level, tests, freedom) + (after === LOOKS_AFTER[0] ? 0 : LATER_PENALTY);
	if (Math.abs(step.z) <= critical) return false;
	const bound = AFTER_A_BAD_WEEK.mean + AFTER_A_BAD_WEEK.spread * criticalZ(2 * LONE_LEVEL, ofPage, freedom);
	if (leastWithoutOne(before, later) - APART * mostApart(later) <= bound) return false;
	return middlesDiffer(
		before.map(({ value }) => value),
		later.map(({ value }) => value)
	);
}

/** How far one reading lies from the rest, in standard errors: the most. */
function mostApart(later: readonly Point[]): number {
	return Math.max(
		...later.map(({ value, variance }, left) => {
			const rest = later.filter((_, i) => i !== left);
			const mean = rest.reduce((sum, point) => sum + point.value, 0) / rest.length;
			const error = Math.sqrt(variance + rest.reduce((sum, point) => sum + point.variance, 0) / rest.length ** 2);
			return value === mean ? 0 : Math.abs(value - mean) / error;
		})
	);
}
