/** Histories of a watch as a lab would gather them, from a seeded world: drift, heavy tails, weeks that are missing. */
import type { MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom, type Random } from '$core/stats/random';
import { hintsIn } from '$core/watch/history';
import type { PageHistory, PageReading, Setting } from '$core/watch/reading';

export interface WatchWorld {
	weeks: number;
	pages: number;
	metrics: readonly MetricId[];
	/** Noise of single loads, as a share. */
	noise: number;
	/** Share of loads that scatter three times as much. */
	tail: number;
	/** Spread of the lab's drift, and how much of it stays from week to week. */
	drift: number;
	stays: number;
	/** Spread of a page of its own from reading to reading, of each metric by itself. */
	own: number;
	/** The same of its bytes, which do not scatter within a reading. */
	bytes: number;
	/** The first page differs by so much from reading to reading, in all of its metrics together. */
	restless: number;
	missing: number;
	/** The first page moves by this share from a week on, `until` another: in LCP on the phone, or in all. */
	step: { week: number; by: number; until?: number; all?: boolean } | null;
	/** The first page's LCP on the phone moves by this share a week over so many weeks. */
	ramp: { week: number; by: number; weeks: number } | null;
	/** The browser is updated each so many weeks: all slows by a share of this spread, each page by one of its own. */
	updates: { every: number; spread: number; own: number } | null;
	/** Whether pages that may have moved are loaded more often, as the lab does. */
	looksTwice: boolean;
}

export const USUAL_WATCH: WatchWorld = {
	weeks: 52,
	pages: 1,
	metrics: ['score', 'lcp', 'cls', 'tbt', 'wire'],
	noise: 0.12,
	tail: 0.05,
	drift: 0.03,
	stays: 0.6,
	own: 0.01,
	bytes: 0,
	restless: 0,
	missing: 0.1,
	step: null,
	ramp: null,
	updates: null,
	looksTwice: true
};

const CONDITIONS = ['phone', 'desktop'];
const LEVELS: Partial<Record<MetricId, number>> = {
	lcp: 2400,
	tbt: 300,
	fcp: 1400,
	score: 70,
	cls: 0.08,
	wire: 900_000
};
const CONTROL: Partial<Record<MetricId, number>> = { lcp: 500, tbt: 100, fcp: 400, score: 95, cls: 0, wire: 30_000 };
const LOADS = 5;
const EXTRA = 15;
const CONTROL_TURNS = 2;
const WEEK_MS = 7 * 86_400_000;

interface Moment {
	reading: number;
	week: number;
	/** Of the lab, by logarithm; and what updates did to each page beyond it. */
	drift: number;
	updated: readonly number[];
	setting: Setting;
}

/** @returns histories, and the weeks of the readings by their number less one */
export function watchWorld(world: WatchWorld, seed: number): { histories: PageHistory[]; weeks: number[] } {
	const random = seededRandom(seed);
	const histories = Array.from({ length: world.pages }, (_, page) =>
		CONDITIONS.map((condition): PageHistory => ({ page: page + 1, condition, readings: [] }))
	).flat();
	const weeks: number[] = [];
	// Another number stream, so that worlds with and without updates are alike in the rest.
	const ofUpdates = seededRandom(seed + 1_000_000);
	const first = world.updates ? 1 + Math.floor(ofUpdates() * world.updates.every) : Infinity;
	let [drift, lab, version] = [0, 0, 0];
	const updated = histories.map(() => 0);
	for (let week = 0; week < world.weeks; week++) {
		drift = world.stays * drift + world.drift * Math.sqrt(1 - world.stays ** 2) * normalFrom(random);
		if (world.updates && week >= first && (week - first) % world.updates.every === 0) {
			version++;
			lab += world.updates.spread * normalFrom(ofUpdates);
			updated.forEach((_, i) => (updated[i]! += world.updates!.own * normalFrom(ofUpdates)));
		}
		if (random() < world.missing) continue;
		weeks.push(week);
		const setting = { browser: `Chromium ${140 + version}`, conditions: 'a', recipe: 'a', lab: 'a' };
		readAll(world, histories, { reading: weeks.length, week, drift: drift + lab, updated, setting }, random);
	}
	return { histories, weeks };
}

function readAll(world: WatchWorld, histories: PageHistory[], moment: Moment, random: Random): void {
	const { metrics } = world;
	const loads = (metric: MetricId, middle: number, more: number, count: number) =>
		Array.from({ length: count }, () => {
			if (metric === 'wire') return Math.round(middle);
			const spread = world.noise * (random() < world.tail ? 3 : 1);
			const log = (metric === 'cls' ? 0 : moment.drift + more) + spread * normalFrom(random);
			// A score falls where times grow, and by less.
			return middle * Math.exp(metric === 'score' ? -0.4 * log : log);
		});
	const restless = [world.restless * normalFrom(random), world.restless * normalFrom(random)];
	const middles = histories.map(({ page, condition }) =>
		metrics.map((metric) => {
			const own = metric === 'wire' ? world.bytes : world.own;
			const whole = page === 1 ? restless[CONDITIONS.indexOf(condition)]! : 0;
			return (
				LEVELS[metric]! *
				(1 + movedBy(world, moment.week, page, condition, metric)) *
				Math.exp(whole + own * normalFrom(random))
			);
		})
	);
	const controls = () => metrics.map((metric) => CONTROL[metric]!);
	const figuresOf = (own: readonly number[], more: number, count: number) =>
		Object.fromEntries(metrics.map((metric, i) => [metric, loads(metric, own[i]!, more, count)]));
	const control = CONDITIONS.map(() => figuresOf(controls(), 0, LOADS * CONTROL_TURNS));
	histories.forEach((history, i) => {
		const reading: PageReading = {
			reading: moment.reading,
			at: new Date(moment.week * WEEK_MS).toISOString(),
			setting: moment.setting,
			figures: figuresOf(middles[i]!, moment.updated[i]!, LOADS),
			control: control[CONDITIONS.indexOf(history.condition)]!
		};
		history.readings.push(reading);
	});
	if (!world.looksTwice) return;
	const hints = hintsIn(histories, { metrics });
	for (const condition of new Set(hints.map((hint) => hint.condition))) {
		const more = figuresOf(controls(), 0, EXTRA * CONTROL_TURNS);
		histories.forEach((history, i) => {
			if (history.condition !== condition) return;
			const last = history.readings.at(-1)!;
			last.control = added(last.control!, more, metrics);
			if (hints.some((hint) => hint.page === history.page && hint.condition === condition))
				last.figures = added(last.figures, figuresOf(middles[i]!, moment.updated[i]!, EXTRA), metrics);
		});
	}
}

function movedBy({ step, ramp }: WatchWorld, week: number, page: number, condition: string, metric: MetricId): number {
	if (page !== 1) return 0;
	const isLcp = condition === 'phone' && metric === 'lcp';
	const isMoved = step && week >= step.week && week < (step.until ?? Infinity) && (step.all ? metric !== 'cls' : isLcp);
	const risen = ramp && isLcp ? ramp.by * Math.min(ramp.weeks, Math.max(0, week - ramp.week + 1)) : 0;
	return (isMoved ? step.by * (metric === 'score' ? -0.4 : 1) : 0) + risen;
}

function added(
	figures: PageReading['figures'],
	more: PageReading['figures'],
	metrics: readonly MetricId[]
): PageReading['figures'] {
	return Object.fromEntries(metrics.map((metric) => [metric, [...figures[metric]!, ...more[metric]!]]));
}
