/** Histories of a watch as a lab would gather them, from a seeded world: drift, heavy tails, weeks that are missing. */
import type { MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom, type Random } from '$core/stats/random';
import { hintsIn } from '$core/watch/history';
import type { PageHistory, PageReading, Setting } from '$core/watch/reading';

export interface WatchWorld {
	weeks: number;
	pages: number;
	/** Noise of single loads, as a share. */
	noise: number;
	/** Share of loads that scatter three times as much. */
	tail: number;
	/** Spread of the lab's drift, and how much of it stays from week to week. */
	drift: number;
	stays: number;
	/** Spread of a page of its own from reading to reading. */
	own: number;
	missing: number;
	/** The first page's LCP on the phone moves by this share from a week on. */
	step: { week: number; by: number } | null;
	/** Whether pages that may have moved are loaded more often, as the lab does. */
	looksTwice: boolean;
}

export const USUAL_WATCH: WatchWorld = {
	weeks: 52,
	pages: 1,
	noise: 0.12,
	tail: 0.05,
	drift: 0.03,
	stays: 0.6,
	own: 0.01,
	missing: 0.1,
	step: null,
	looksTwice: true
};

export const WATCH_METRICS: MetricId[] = ['lcp', 'tbt', 'fcp'];
const CONDITIONS = ['phone', 'desktop'];
const LEVELS: Partial<Record<MetricId, number>> = { lcp: 2400, tbt: 300, fcp: 1400 };
const SETTING: Setting = { browser: 'a', conditions: 'a', recipe: 'a', lab: 'a' };
const LOADS = 5;
const EXTRA = 15;
const CONTROL_TURNS = 2;
const WEEK_MS = 7 * 86_400_000;

/** @returns histories, and the numbers of the readings by their week */
export function watchWorld(world: WatchWorld, seed: number): { histories: PageHistory[]; weeks: number[] } {
	const random = seededRandom(seed);
	const histories = Array.from({ length: world.pages }, (_, page) =>
		CONDITIONS.map((condition): PageHistory => ({ page: page + 1, condition, readings: [] }))
	).flat();
	const weeks: number[] = [];
	let drift = 0;
	for (let week = 0; week < world.weeks; week++) {
		drift = world.stays * drift + world.drift * Math.sqrt(1 - world.stays ** 2) * normalFrom(random);
		if (random() < world.missing) continue;
		weeks.push(week);
		readAll(world, histories, { reading: weeks.length, week, drift }, random);
	}
	return { histories, weeks };
}

interface Moment {
	reading: number;
	week: number;
	drift: number;
}

function readAll(world: WatchWorld, histories: PageHistory[], moment: Moment, random: Random): void {
	const loads = (middle: number, count: number) =>
		Array.from({ length: count }, () => {
			const spread = world.noise * (random() < world.tail ? 3 : 1);
			return middle * Math.exp(moment.drift + spread * normalFrom(random));
		});
	const middles = histories.map(({ page, condition }) =>
		WATCH_METRICS.map((metric) => {
			const { step } = world;
			const isMoved = step && moment.week >= step.week && page === 1 && condition === 'phone' && metric === 'lcp';
			return LEVELS[metric]! * (1 + (isMoved ? step.by : 0)) * Math.exp(world.own * normalFrom(random));
		})
	);
	const figuresOf = (own: readonly number[], count: number) =>
		Object.fromEntries(WATCH_METRICS.map((metric, i) => [metric, loads(own[i]!, count)]));
	const controls = CONDITIONS.map(() => figuresOf([500, 100, 400], LOADS * CONTROL_TURNS));
	histories.forEach((history, i) => {
		const reading: PageReading = {
			reading: moment.reading,
			at: new Date(moment.week * WEEK_MS).toISOString(),
			setting: SETTING,
			figures: figuresOf(middles[i]!, LOADS),
			control: controls[CONDITIONS.indexOf(history.condition)]!
		};
		history.readings.push(reading);
	});
	if (!world.looksTwice) return;
	const hints = hintsIn(histories, { metrics: WATCH_METRICS });
	for (const condition of new Set(hints.map((hint) => hint.condition))) {
		const more = figuresOf([500, 100, 400], EXTRA * CONTROL_TURNS);
		histories.forEach((history, i) => {
			if (history.condition !== condition) return;
			const last = history.readings.at(-1)!;
			last.control = added(last.control!, more);
			if (hints.some((hint) => hint.page === history.page && hint.condition === condition))
				last.figures = added(last.figures, figuresOf(middles[i]!, EXTRA));
		});
	}
}

function added(figures: PageReading['figures'], more: PageReading['figures']): PageReading['figures'] {
	return Object.fromEntries(WATCH_METRICS.map((metric) => [metric, [...figures[metric]!, ...more[metric]!]]));
}
