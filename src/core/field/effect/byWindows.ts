/**
 * The step of a 75th percentile at a release, from windows that overlap. A step on one day shows as a ramp over the
 * windows that hold it; what two windows have in common they do not tell twice. So the level and the step are fitted by
 * generalised least squares (Aitken 1936) with the covariance that overlapping means of independent days have, and the
 * interval is Student's. Thirteen weekly windows hold three that are independent: blocks of their residuals, dealt
 * anew, would be too few to hold a level.
 */
import { studentQuantile } from '../../stats/student';
import type { FieldMetric } from '../histogram';
import { WINDOW_DAYS } from '../reading';
import { daysBetween, overlapOf, shareAfter } from '../windows';
import { toldEffect } from './told';
import type { Trend } from './trend';
import { LEVEL, type EffectAnswer } from './types';

export interface WindowFigure {
	/** Last day of the window. */
	until: string;
	p75: number;
}

/** A window tells of a release once half of its days lie after it. */
const LEAST_SHARE = 0.5;
const LEAST_BEFORE = 3;
const LEAST_WINDOWS = 6;

/**
 * @param windows of the page, with their last days
 * @param control the same of pages without the release; only windows that both have count; null for none
 * @param release first day on which it was live
 */
export function effectByWindows(
	metric: FieldMetric,
	windows: readonly WindowFigure[],
	control: readonly WindowFigure[] | null,
	release: string
): EffectAnswer {
	const drifts = new Map(control?.map(({ until, p75 }) => [until, p75]));
	const shared = windows.filter(({ until, p75 }) => p75 > 0 && (!control || (drifts.get(until) ?? 0) > 0));
	const used = [...shared].sort((a, b) => (a.until < b.until ? -1 : 1));
	const shares = used.map(({ until }) => shareAfter(until, release));
	const before = shares.filter((share) => share === 0).length;
	const reached = Math.max(0, ...shares);
	if (before < LEAST_BEFORE) return { tooSoon: { moreDays: null } };
	if (reached < LEAST_SHARE || used.length < LEAST_WINDOWS)
		return { tooSoon: { moreDays: Math.max(1, Math.ceil((LEAST_SHARE - reached) * WINDOW_DAYS)) } };
	const covariance = covarianceOf(used);
	const drifting = used.map(({ until }) => (control ? Math.log(drifts.get(until)!) : 0));
	const logs = used.map(({ p75 }, i) => Math.log(p75) - drifting[i]!);
	const resolution = Math.max(...used.map(({ p75 }) => roundingOf(metric) / p75));
	// Days may hang together, which windows cannot show: the wider of both ideas stands.
	const [apart, together] = [covariance, covarianceOf(used, DAYS_IN_COMMON)].map((matrix) =>
		fitStep(logs, shares, matrix, resolution)
	) as [Fit, Fit];
	const { step, freedom } = apart;
	const reach = studentQuantile(1 - (1 - LEVEL) / 2, freedom) * Math.max(apart.error, together.error);
	return {
		effect: toldEffect(metric, {
			by: 'windows',
			before: levelBefore(used, shares),
			estimate: step,
			low: step - reach,
			high: step + reach,
			// The fit is linear: what it takes off is the step that it finds in the control.
			drift: control ? fitStep(drifting, shares, covariance).step : null,
			trend: trendOfWindows(used, logs, shares, resolution),
			observed: { before, after: used.length - before }
		})
	};
}

/** Fewer windows before a release show no slope. */
const LEAST_OF_TREND = 5;

/** Where both ideas of days stand, the less certain slope. */
function trendOfWindows(
	windows: readonly WindowFigure[],
	logs: readonly number[],
	shares: readonly number[],
	resolution: number
): Trend | null {
	const before = windows.filter((_, i) => shares[i] === 0);
	if (before.length < LEAST_OF_TREND) return null;
	const days = windows.map(({ until }) => daysBetween(windows[0]!.until, until));
	const own = logs.filter((_, i) => shares[i] === 0);
	const [apart, together] = [0, DAYS_IN_COMMON].map((memory) =>
		fitStep(own, days.slice(0, before.length), covarianceOf(before, memory))
	) as [Fit, Fit];
	const { step: aDay } = apart;
	const error = Math.max(apart.error, together.error, resolution / days[before.length - 1]!);
	// The fit is linear: what it finds in a figure that only rises is what a rise looks like.
	const distance = fitStep(days, shares, covarianceOf(windows)).step;
	return { shift: aDay * distance, error: error * distance, aWeek: 7 * aDay };
}

/** Panels print whole ms and four places: half of that is the error of each figure at most. */
const roundingOf = (metric: FieldMetric) => (metric === 'cls' ? 0.00005 : 0.5);

/** The last window that holds nothing of the release. */
function levelBefore(windows: readonly WindowFigure[], shares: readonly number[]): number {
	return windows[shares.lastIndexOf(0)]!.p75;
}

/** What a day has of the day before, where days hang together: weather, news, a campaign (house). */
const DAYS_IN_COMMON = 0.7;

/** Of means over the days of windows, up to a factor. @param memory correlation of one day with the next */
const covarianceOf = (windows: readonly WindowFigure[], memory = 0): number[][] =>
	windows.map(({ until }) =>
		windows.map((other) =>
			memory === 0 ? overlapOf(until, other.until) : commonOf(Math.abs(daysBetween(until, other.until)), memory)
		)
	);

/** Covariance of the means of two runs of 28 days, so many days apart, of an AR(1) process of variance 1. */
function commonOf(apart: number, memory: number): number {
	let sum = 0;
	for (let lag = 1 - WINDOW_DAYS; lag < WINDOW_DAYS; lag++)
		sum += (WINDOW_DAYS - Math.abs(lag)) * memory ** Math.abs(lag + apart);
	return sum / WINDOW_DAYS ** 2;
}

interface Fit {
	step: number;
	/** Standard error of the step. */
	error: number;
	freedom: number;
}

/**
 * y = level + step x, by generalised least squares.
 * @param covariance of y, up to a factor; positive definite
 * @param resolution the printed figures' own error, as a share: the step is known no better than by it
 */
export function fitStep(
	y: readonly number[],
	x: readonly number[],
	covariance: readonly (readonly number[])[],
	resolution = 0
): Fit {
	const root = cholesky(covariance);
	const [one, ramp, figures] = [x.map(() => 1), x, y].map((column) => forwardSolved(root, column)) as [
		number[],
		number[],
		number[]
	];
	const [a, b, c] = [dot(one, one), dot(one, ramp), dot(ramp, ramp)];
	const [p, q] = [dot(one, figures), dot(ramp, figures)];
	const determinant = a * c - b * b;
	const level = (c * p - b * q) / determinant;
	const step = (a * q - b * p) / determinant;
	const rest = figures.map((value, i) => value - level * one[i]! - step * ramp[i]!);
	const freedom = y.length - 2;
	const variance = dot(rest, rest) / freedom;
	return { step, error: Math.sqrt((variance * a) / determinant + resolution ** 2), freedom };
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, i) => sum + value * b[i]!, 0);

/** Lower triangle L with L L' = matrix (Cholesky). A trace of independent error keeps windows of one day apart. */
function cholesky(matrix: readonly (readonly number[])[]): number[][] {
	const root = matrix.map((row) => row.map(() => 0));
	for (let i = 0; i < matrix.length; i++)
		for (let j = 0; j <= i; j++) {
			const rest = matrix[i]![j]! + (i === j ? 1e-9 : 0) - dot(root[i]!.slice(0, j), root[j]!.slice(0, j));
			root[i]![j] = i === j ? Math.sqrt(rest) : rest / root[j]![j]!;
		}
	return root;
}

/** x with L x = column. */
function forwardSolved(root: readonly (readonly number[])[], column: readonly number[]): number[] {
	const solved: number[] = [];
	column.forEach((value, i) => solved.push((value - dot(root[i]!.slice(0, i), solved)) / root[i]![i]!));
	return solved;
}
