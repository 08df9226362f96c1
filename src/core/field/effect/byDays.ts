/**
 * The step of a 75th percentile at a release, from own visits: days before against days after, with the shares of
 * devices and of weekdays and weekends held, the control's step taken off, and an interval from whole days dealt anew
 * (bootstrap by day: visits of one day have the day's own luck in common). House; the bootstrap after Efron (1979).
 */
import { normalQuantile } from '../../stats/normal';
import { studentQuantile } from '../../stats/student';
import { seededRandom, type Random } from '../../stats/random';
import { quantileSorted } from '../../stats/summary';
import { binStart, GROWTH, type FieldMetric, type Histogram } from '../histogram';
import { DEVICE_CLASSES, type DeviceClass } from '../reading';
import { addDays, daysBetween } from '../windows';
import { mixOf, type DayOfKind } from './mix';
import { toldEffect } from './told';
import { trendOfDays, type Trend } from './trend';
import { LEVEL, type EffectAnswer, type Sides } from './types';

export interface DayOfVisits {
	day: string;
	device: DeviceClass;
	histogram: Histogram;
}

/** Longest time before and after: a month of four weeks; older days tell of other things. */
const MOST_DAYS = 28;
/** Days before that show whether the figure was moving already. */
export const TREND_DAYS = 84;
/** Whole weeks on both sides, and two of them: one weekend is no sample of weekends. */
const LEAST_DAYS = 14;
/** Page views of a cell below which its percentile is mostly luck (house). */
const LEAST_VISITS = 100;
const SHARE = 0.75;
const RESAMPLES = 800;
/** Fewer independent days on a side hold no level (simulated): of days that have 0.8 in common 28 are worth three. */
const LEAST_INDEPENDENT = 5;

/**
 * @param days of the page, any order; a day that is missing had no visits
 * @param control the same of pages without the release; null for none
 * @param release first day on which it was live; it is in neither side, since it began at some hour
 */
export function effectByDays(
	metric: FieldMetric,
	days: readonly DayOfVisits[],
	control: readonly DayOfVisits[] | null,
	release: string,
	seed = 1,
	kinds: readonly DayOfKind[] = []
): EffectAnswer {
	const sides = sidesOf(days, release);
	if (sides.before.length < LEAST_DAYS) return { tooSoon: { moreDays: null } };
	if (sides.after.length < LEAST_DAYS) return { tooSoon: { moreDays: LEAST_DAYS - sides.daysAfter } };
	const page = new Pool(metric, days, sides);
	if (page.least < LEAST_VISITS) return { tooSoon: { moreDays: null } };
	const other = control && new Pool(metric, control, sides);
	const steady = other !== null && other.least >= LEAST_VISITS ? other : null;
	const whole = { before: sides.before.map((_, i) => i), after: sides.after.map((_, i) => i) };
	const [from, to] = page.percentiles(whole);
	const drift = steady ? logStep(steady, whole) : null;
	const estimate = Math.log(to / from) - (drift ?? 0);
	const lasting = lastingShare(page, steady, sides);
	const independent = { before: free(sides.before.length, lasting), after: free(sides.after.length, lasting) };
	if (Math.min(independent.before, independent.after) < LEAST_INDEPENDENT)
		return { tooSoon: { moreDays: null, hangTogether: true } };
	const steps = resampledSteps(page, steady, sides, seededRandom(seed));
	const [low, high] = intervalOf(steps, estimate, sides, independent);
	const observed = { before: sides.before.length, after: sides.after.length };
	const mixed = mixOf(metric, kinds, sides);
	const trend = trendBefore(metric, { days, control: steady ? control : null, release, sides });
	return {
		effect: toldEffect(metric, { by: 'days', before: from, estimate, low, high, drift, observed, mixed, trend })
	};
}

/** The last days before and the first ones after, in whole weeks, as far as there were visits at all. */
function sidesOf(days: readonly DayOfVisits[], release: string): Sides {
	const seen = [...new Set(days.map(({ day }) => day))].sort();
	const [first, last] = [seen[0] ?? release, seen.at(-1) ?? release];
	const count = (available: number) => Math.min(MOST_DAYS, Math.floor(Math.max(0, available) / 7) * 7);
	const before = count(daysBetween(first, release));
	const daysAfter = Math.max(0, daysBetween(release, last));
	const after = count(daysAfter);
	return {
		before: Array.from({ length: before }, (_, i) => addDays(release, i - before)),
		after: Array.from({ length: after }, (_, i) => addDays(release, i + 1)),
		daysAfter
	};
}

function trendBefore(
	metric: FieldMetric,
	{
		days,
		control,
		release,
		sides: { before, after }
	}: { days: readonly DayOfVisits[]; control: readonly DayOfVisits[] | null; release: string; sides: Sides }
): Trend | null {
	const long = Array.from({ length: TREND_DAYS }, (_, i) => addDays(release, i - TREND_DAYS));
	const sides = { before: long, after: [], daysAfter: 0 };
	const [page, other] = [new Pool(metric, days, sides), control && new Pool(metric, control, sides)];
	const logs = long.map((_, i) => page.dayLog('before', i) - (other?.dayLog('before', i) ?? 0));
	return trendOfDays(logs, (before.length + after.length) / 2 + 1);
}

interface Choice {
	before: readonly number[];
	after: readonly number[];
}

const isWeekend = (day: string) => [0, 6].includes(new Date(`${day}T00:00:00Z`).getUTCDay());

/** The histograms of both sides, by day and cell; a cell is a device on weekdays or weekends. */
class Pool {
	/** Page views in the smaller side. */
	readonly least: number;
	readonly #sides: { before: Float64Array[][]; after: Float64Array[][] };
	/** Share of each cell in both sides together: both are weighted by it. */
	readonly #weights: number[];
	readonly #firstBin: number;
	readonly #isWeekend: { before: boolean[]; after: boolean[] };

	constructor(
		private readonly metric: FieldMetric,
		days: readonly DayOfVisits[],
		sides: Sides
	) {
		const bins = days.flatMap(({ histogram }) => [...histogram.keys()]);
		this.#firstBin = bins.reduce((least, bin) => Math.min(least, bin), bins[0] ?? 0);
		const size = bins.reduce((most, bin) => Math.max(most, bin), this.#firstBin) - this.#firstBin + 1;
		const byKey = new Map(days.map((day) => [`${day.day}/${day.device}`, day.histogram]));
		const dense = (day: string) =>
			DEVICE_CLASSES.map((device) => {
				const counts = new Float64Array(size);
				for (const [bin, weight] of byKey.get(`${day}/${device}`) ?? []) counts[bin - this.#firstBin] = weight;
				return counts;
			});
		this.#sides = { before: sides.before.map(dense), after: sides.after.map(dense) };
		this.#isWeekend = { before: sides.before.map(isWeekend), after: sides.after.map(isWeekend) };
		const whole = { before: sides.before.map((_, i) => i), after: sides.after.map((_, i) => i) };
		const [before, after] = [this.#cells('before', whole), this.#cells('after', whole)];
		const visits = before.map((cell, i) => total(cell) + total(after[i]!));
		const all = visits.reduce((sum, visit) => sum + visit, 0);
		this.#weights = visits.map((visit) => visit / all);
		const sizes = [before, after].map((cells) => cells.reduce((sum, cell) => sum + total(cell), 0));
		this.least = Math.min(...sizes);
	}

	/** Logarithm of one day's percentile, devices weighted as over both sides. */
	dayLog(side: 'before' | 'after', index: number): number {
		const choice = { before: [], after: [], [side]: [index] };
		const hasVisits = this.#cells(side, choice).some((cell) => total(cell) > 0);
		return hasVisits ? Math.log(this.#percentile(side, choice)) : NaN;
	}

	percentiles(choice: Choice): [before: number, after: number] {
		return [this.#percentile('before', choice), this.#percentile('after', choice)];
	}

	#percentile(side: 'before' | 'after', choice: Choice): number {
		const cells = this.#cells(side, choice);
		const mixed = new Float64Array(cells[0]!.length);
		for (let i = 0; i < cells.length; i++) {
			const visits = total(cells[i]!);
			if (visits > 0) addTo(mixed, cells[i]!, this.#weights[i]! / visits);
		}
		return densePercentile(this.metric, mixed, this.#firstBin);
	}

	#cells(side: 'before' | 'after', choice: Choice): Float64Array[] {
		const days = this.#sides[side];
		const weekend = this.#isWeekend[side];
		const size = days[0]?.[0]?.length ?? 0;
		const cells = Array.from({ length: 2 * DEVICE_CLASSES.length }, () => new Float64Array(size));
		for (const index of choice[side])
			for (let device = 0; device < DEVICE_CLASSES.length; device++)
				addTo(cells[2 * device + Number(weekend[index])]!, days[index]![device]!, 1);
		return cells;
	}
}

function addTo(into: Float64Array, counts: Float64Array, weight: number): void {
	for (let bin = 0; bin < into.length; bin++) into[bin] = into[bin]! + weight * counts[bin]!;
}

function total(counts: Float64Array): number {
	let sum = 0;
	for (let bin = 0; bin < counts.length; bin++) sum += counts[bin]!;
	return sum;
}

/** Within its bin the percentile is read off on the log scale; zero, which has none, is a tenth of the first bin. */
function densePercentile(metric: FieldMetric, weights: Float64Array, firstBin: number): number {
	const smallest = binStart(metric, 0) / 10;
	const wanted = SHARE * total(weights);
	let below = 0;
	for (let i = 0; i < weights.length; i++) {
		if (below + weights[i]! >= wanted && weights[i]! > 0)
			return Math.max(binStart(metric, i + firstBin), smallest) * GROWTH ** ((wanted - below) / weights[i]!);
		below += weights[i]!;
	}
	return smallest;
}

function logStep(pool: Pool, choice: Choice): number {
	const [before, after] = pool.percentiles(choice);
	return Math.log(after / before);
}

/** What a lasting luck keeps from day to day: weather, news, a season (house; the worst that is reckoned with). */
const KEPT_A_DAY = 0.8;
const LAGS = 5;
/** Two weeks show so little of it that making good for their means would say anything. */
const LEAST_WEIGHT = 0.6;

/**
 * Share of a day's luck that lasts: the rest is each day's own, and hides it from the day before. Fitted to the
 * correlations of days up to five apart, made good for the means that were taken off each side (Kendall 1954). Never
 * below zero: days that take turns would only seem to tell more.
 */
function lastingShare(page: Pool, control: Pool | null, sides: Sides): number {
	const days = (side: 'before' | 'after') => {
		const logs = sides[side].map((_, i) => page.dayLog(side, i) - (control ? control.dayLog(side, i) : 0));
		const finite = logs.filter(Number.isFinite);
		const centre = finite.reduce((sum, value) => sum + value, 0) / Math.max(1, finite.length);
		return logs.map((log) => (Number.isFinite(log) ? log - centre : 0));
	};
	const all = [days('before'), days('after')];
	const squares = all.flat().reduce((sum, value) => sum + value ** 2, 0);
	if (squares === 0) return 0;
	const length = all.flat().length / 2;
	let [fit, weight] = [0, 0];
	for (let lag = 1; lag <= LAGS; lag++) {
		const products = all.reduce(
			(sum, own) => sum + own.slice(lag).reduce((part, value, i) => part + value * own[i]!, 0),
			0
		);
		// As many products as there are days, so that far lags weigh no less.
		const correlation = (products / squares) * (length / (length - lag));
		const kept = KEPT_A_DAY ** lag;
		fit += (correlation + 1 / length) * kept;
		weight += kept ** 2 - (LASTING_COST / length) * kept;
	}
	return Math.min(1, Math.max(0, fit / Math.max(LEAST_WEIGHT, weight)));
}

/** By how much a mean's variance grows when all of a day's luck lasts: AR(1), Bartlett 1946. */
const LASTING_COST = (1 + KEPT_A_DAY) / (1 - KEPT_A_DAY) - 1;

/** As many independent days tell as much. */
const free = (days: number, lasting: number): number => days / (1 + LASTING_COST * lasting);

/** The same days are drawn for the page and its control: what a day did to both of them falls away. */
function resampledSteps(page: Pool, control: Pool | null, sides: Sides, random: Random): number[] {
	const strata = { before: strataOf(sides.before), after: strataOf(sides.after) };
	return Array.from({ length: RESAMPLES }, () => {
		const choice = { before: drawn(strata.before, random), after: drawn(strata.after, random) };
		return logStep(page, choice) - (control ? logStep(control, choice) : 0);
	});
}

/** Weekdays and weekends are dealt by themselves, so that their shares hold. */
function strataOf(days: readonly string[]): number[][] {
	const places = days.map((_, i) => i);
	return [places.filter((i) => isWeekend(days[i]!)), places.filter((i) => !isWeekend(days[i]!))];
}

const drawn = (strata: readonly number[][], random: Random): number[] =>
	strata.flatMap((stratum) => stratum.map(() => stratum[Math.floor(random() * stratum.length)]!));

/**
 * About the estimate, by the spread of the resamples. A resample of n days spreads too little, by (n - 1) / n, in each
 * stratum, and its tails are a t distribution's rather than a normal one's: both are made good, by the smallest one.
 */
function intervalOf(
	steps: readonly number[],
	estimate: number,
	sides: Sides,
	independent: { before: number; after: number }
): [low: number, high: number] {
	const strata = [...strataOf(sides.before), ...strataOf(sides.after)];
	const fewest = Math.min(...strata.map((stratum) => stratum.length));
	const tail = (1 - LEVEL) / 2;
	const days = sides.before.length + sides.after.length;
	const all = independent.before + independent.after;
	// What each independent day tells less; the strata take their part of it.
	const freedom = Math.max(1, Math.floor((all * (days - strata.length)) / days));
	const stretch =
		Math.sqrt(fewest / (fewest - 1)) *
		Math.sqrt(days / all) *
		(studentQuantile(1 - tail, freedom) / normalQuantile(1 - tail));
	const sorted = [...steps].sort((a, b) => a - b);
	const middle = quantileSorted(sorted, 0.5);
	const reach = (share: number) => stretch * (quantileSorted(sorted, share) - middle);
	return [estimate + reach(tail), estimate + reach(1 - tail)];
}
