/** Figures of one metric of one page over the readings, and what is known of their scatter. */
import { metricOf, type MetricId } from '../metrics/catalogue';
import { drifts } from '../trial/judge/measures';
import { blockOf, type Block } from './block';
import { withoutDrift } from './drift';
import type { Point } from './level';
import { measured, settingParts, type PageHistory, type PageReading } from './reading';
import { metricScatter, ownScatter, shrunk, type MetricScatter, type OwnScatter, type Scatter } from './scatter';
import { varianceWithin } from './step';

export interface Series {
	history: PageHistory;
	metric: MetricId;
	/** Readings with figures, in order. */
	readings: PageReading[];
	blocks: Block[];
	control: (Block | null)[];
	/** Index of the first reading that can be compared with the newest. */
	start: number;
	/** Whether a called step begins there: what came before it still tells of the scatter. */
	startsWithStep: boolean;
	/** Indices at which the lab was updated in a way that the control page can tell. */
	updates: number[];
	/** Indices at which the level changed: called steps, updates, other settings. */
	levels: number[];
	corrected: Corrected | null;
}

/** The readings of a series as they would be in the newest lab. */
export interface Corrected {
	/** Index of the first that counts. */
	from: number;
	/** From `from` on. */
	blocks: Block[];
	moves: number[];
	/** Whether the lab's drift was taken off, where it makes any. */
	isCorrected: boolean;
}

/** Older readings tell of other times. */
const MOST_BEFORE = 26;
/** As many readings may lie after a step in which it is still sought. */
const MOST_AFTER = 8;

export function emptySeries(history: PageHistory, metric: MetricId): Series {
	return {
		history,
		metric,
		readings: [],
		blocks: [],
		control: [],
		start: 0,
		startsWithStep: false,
		updates: [],
		levels: [],
		corrected: null
	};
}

const blocksOf = new WeakMap<readonly (number | null)[], Block | null>();

/** Of figures that are read again and again as a history is gone through: worked out once. */
function blockFrom(figures: readonly (number | null)[] | undefined): Block | null {
	if (!figures) return null;
	let block = blocksOf.get(figures);
	if (block === undefined) blocksOf.set(figures, (block = blockOf(measured(figures))));
	return block;
}

export function wholeSeries(history: PageHistory, metric: MetricId): Series {
	const series = emptySeries(history, metric);
	for (const { reading } of history.readings) grow(series, reading);
	return series;
}

/** @returns whether the reading has figures of the series */
export function grow(series: Series, number: number): boolean {
	const reading = series.history.readings.find((candidate) => candidate.reading === number);
	const block = blockFrom(reading?.figures[series.metric]);
	if (!reading || !block) return false;
	const last = series.readings.at(-1);
	const index = series.blocks.length;
	const control = blockFrom(reading.control?.[series.metric]);
	if (last && isOtherLab(last, reading, series.metric)) {
		series.levels.push(index);
		if (isUpdate(last, reading)) series.updates.push(index);
		else startAnew(series, index, false);
	}
	series.readings.push(reading);
	series.blocks.push(block);
	series.control.push(control);
	series.corrected = null;
	return true;
}

export function startAnew(series: Series, index: number, isStep: boolean): void {
	series.start = index;
	series.startsWithStep = isStep;
	if (isStep) series.levels = [...series.levels, index].sort((a, b) => a - b);
	series.updates = series.updates.filter((update) => update > index);
	series.corrected = null;
}

/** Another recipe is another score, and no other figure. */
const isOtherLab = (before: PageReading, after: PageReading, metric: MetricId) =>
	settingParts(before.setting, after.setting).some((part) => part !== 'recipe' || metric === 'score');

/** Of browser or machine, of which the control page tells; other conditions and recipes measure something else. */
export function isUpdate(before: Pick<PageReading, 'setting'>, after: Pick<PageReading, 'setting'>): boolean {
	const parts = settingParts(before.setting, after.setting);
	return parts.every((part) => part === 'browser' || part === 'lab');
}

export function correctedOf(series: Series): Corrected {
	if (series.corrected) return series.corrected;
	const oldest = Math.max(series.start, series.blocks.length - MOST_BEFORE - MOST_AFTER);
	if (!drifts(series.metric)) {
		// No slower lab makes a page heavier: there is nothing to take off, and an update parts nothing.
		const own = series.blocks.slice(oldest);
		return (series.corrected = { from: oldest, blocks: own, moves: own.map(() => 0), isCorrected: true });
	}
	const updates = series.updates.filter((index) => index > oldest).map((index) => index - oldest);
	const { blocks, moves, from, share } = withoutDrift(
		series.blocks.slice(oldest),
		series.control.slice(oldest),
		updates
	);
	series.corrected = {
		from: oldest + from,
		blocks: blocks.slice(from),
		moves: moves.slice(from),
		isCorrected: share > 0
	};
	return series.corrected;
}

/** Each update in what is compared: the readings before it and since, up to the newest few. */
export function partsOf(series: Series, leftOut: number): { start: number; blocks: Block[] }[] {
	const { from, blocks } = correctedOf(series);
	const end = series.blocks.length - leftOut;
	const starts = [from, ...series.updates.filter((index) => index > from && index < end)];
	return starts.map((start, i) => ({
		start,
		blocks: blocks.slice(start - from, Math.max(0, Math.min(end, starts[i + 1] ?? end) - from))
	}));
}

/** @param leftOut newest readings that may lie after a step */
export function scatterOf(series: Series, leftOut: number): OwnScatter | null {
	const { from, blocks } = correctedOf(series);
	const within = varianceWithin(blocks);
	const parts = partsOf(series, leftOut).map((part) => part.blocks);
	return ownScatter([...earlierParts(series, from), ...parts], ({ loads, added = 0 }) => within / loads + added);
}

/** Before what can be compared: other levels, and the same scatter. As measured: their drift is not taken off. */
function earlierParts(series: Series, from: number): Block[][] {
	const oldest = Math.max(0, series.blocks.length - MOST_BEFORE - MOST_AFTER);
	if (!series.startsWithStep || series.start !== from || oldest >= from) return [];
	const starts = [oldest, ...series.levels.filter((index) => index > oldest && index < from)];
	return starts.map((start, i) => {
		const end = starts[i + 1] ?? from;
		const { blocks } = withoutDrift(series.blocks.slice(start, end), series.control.slice(start, end));
		return blocks;
	});
}

/** What all that is watched tells of scatter and of updates, as of one reading. */
export interface Known {
	scatter: Map<MetricId, MetricScatter | null>;
	/** Variance of what an update does to a page beyond the control, as a share of its level squared. */
	updates: Map<string, number>;
}

const updateKey = (metric: MetricId, reading: number) => `${metric}/${reading}`;

/** How far an update moves one page beyond the control, as a share (house): what it costs to paint differs. */
const UPDATE_SPREAD = 0.006;
const UPDATE_SPREAD_OF_BYTES = 0.005;
/** Pages that this is worth. */
const UPDATE_PAGES = 4;

/** @param leftOut newest readings that may lie after a step */
export function knownFrom(all: readonly Series[], leftOut: number): Known {
	const metrics = new Set(all.map(({ metric }) => metric));
	const scatter = new Map(
		[...metrics].map((metric) => {
			const own = all
				.filter((series) => series.metric === metric)
				.flatMap((series) => scatterOf(series, leftOut) ?? []);
			return [metric, metricScatter(own)] as const;
		})
	);
	const jumps = new Map<string, number[]>();
	for (const series of all)
		for (const [key, jump] of jumpsOf(series, leftOut)) jumps.set(key, [...(jumps.get(key) ?? []), jump]);
	const updates = new Map(
		[...jumps].map(([key, squares]) => {
			const prior = priorSpread(key.split('/')[0] as MetricId) ** 2;
			const sum = squares.reduce((total, square) => total + square, 0);
			return [key, Math.max(prior / 4, (UPDATE_PAGES * prior + sum) / (UPDATE_PAGES + squares.length))] as const;
		})
	);
	return { scatter, updates };
}

function priorSpread(metric: MetricId): number {
	const { unit } = metricOf(metric);
	return unit === 'bytes' || unit === 'count' ? UPDATE_SPREAD_OF_BYTES : UPDATE_SPREAD;
}

/** Squares of what each update did to the page beyond the control, less what chance lets expect; as shares. */
function jumpsOf(series: Series, leftOut: number): [string, number][] {
	const { from, blocks, moves } = correctedOf(series);
	if (!series.updates.some((index) => index > from)) return [];
	const within = varianceWithin(blocks);
	const meanOf = (part: readonly Block[]) => part.reduce((sum, { middle }) => sum + middle, 0) / part.length;
	const chanceOf = (part: readonly Block[]) =>
		part.reduce((sum, { loads, added = 0 }) => sum + within / loads + added, 0) / part.length ** 2;
	const parts = partsOf(series, leftOut);
	return parts.slice(1).flatMap((part, i): [string, number][] => {
		const before = parts[i]!.blocks;
		if (!before.length || !part.blocks.length) return [];
		const [a, b] = [meanOf(before), meanOf(part.blocks)];
		const level = (a + b) / 2;
		if (level === 0) return [];
		const chance = chanceOf(before) + chanceOf(part.blocks) + moves[part.start - from]!;
		const key = updateKey(series.metric, series.readings[part.start]!.reading);
		return [[key, ((b - a) ** 2 - chance) / level ** 2]];
	});
}

export function shrunkScatter(series: Series, scatterOfAll: Known, leftOut: number): Scatter {
	return shrunk(scatterOf(series, leftOut), scatterOfAll.scatter.get(series.metric) ?? null);
}

/** Readings as points about a level. @param between variance between readings, as a share of the level squared */
export function pointsOf(series: Series, scatterOfAll: Known, between: number, level: number): Point[] {
	const { from, blocks, moves } = correctedOf(series);
	const within = varianceWithin(blocks);
	return blocks.map(({ middle, loads, added = 0 }, i) => {
		const isUpdated = i > 0 && series.updates.includes(from + i);
		const key = updateKey(series.metric, series.readings[from + i]!.reading);
		const own = isUpdated ? (scatterOfAll.updates.get(key) ?? priorSpread(series.metric) ** 2) * level ** 2 : 0;
		return { value: middle, variance: within / loads + added + between * level ** 2, moved: moves[i]! + own };
	});
}
