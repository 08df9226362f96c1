/**
 * The history of what is watched: where figures stepped beyond the noise, where the lab itself changed, and which
 * readings stand alone.
 *
 * Readings are looked at one after the other, as they came, so that a history says today what it said on the day. A
 * call once made stays. All tests of a quarter share a chance of 5 % of any false call: it is divided among the
 * readings of a quarter and among what is tested at each (Bonferroni); simulated in `bench/watch`.
 */
import { group } from 'd3-array';
import { marginFor, type Margin, type MetricId } from '../metrics/catalogue';
import { decide } from '../trial/verdict';
import type { Shift, Verdict } from '../trial/types';
import { ratioMakesSense } from '../trial/measures';
import { median, scaledMad } from '../stats/summary';
import { normalQuantile } from '../stats/normal';
import { blockOf, type Block } from './block';
import { withoutDrift } from './drift';
import { measured, settingParts, type PageHistory, type PageReading, type Setting, type SettingPart } from './reading';
import { criticalZ, middlesDiffer, stepOf, varianceBetween, varianceWithin } from './step';

interface HistoryOptions {
	/** What calls are made on. */
	metrics: readonly MetricId[];
	margins: Partial<Record<MetricId, Margin>> | null;
	readingsAQuarter: number;
}

export interface Change {
	page: number;
	condition: string;
	metric: MetricId;
	/** Numbers of the last reading before the step, the first one after it, and the one at which it was called. */
	before: number;
	after: number;
	calledAt: number;
	from: number;
	to: number;
	shift: Shift;
	margin: number;
	verdict: Verdict;
	/** Whether the control's drift was taken off. */
	isCorrected: boolean;
}

/** The lab changed: what came before cannot be compared with what comes after. */
export interface Break {
	page: number;
	condition: string;
	/** First reading under the new setting. */
	reading: number;
	parts: SettingPart[];
	from: Setting;
	to: Setting;
	/** How the control page moved over it, by metric: how much of any difference is the lab's. In the metric's unit. */
	control: { metric: MetricId; from: number; to: number }[];
}

/** A single reading far from its neighbours. */
interface Wild {
	page: number;
	condition: string;
	metric: MetricId;
	reading: number;
}

export interface HistoryFindings {
	changes: Change[];
	breaks: Break[];
	wild: Wild[];
	/** How readings differ among themselves, as a share of the variance of single loads; as of the newest reading. */
	between: number;
}

/** Changes of one page under some conditions between the same two readings are one event; in the order of the calls. */
export function eventsOf(changes: readonly Change[]): Change[][] {
	return [...group(changes, ({ page, condition, after }) => `${page}/${condition}/${after}`).values()];
}

/** Readings before a step without which none is called. */
const LEAST_BEFORE = 5;
/** Older readings tell of other times. */
const MOST_BEFORE = 26;
/** Readings after a step at which it is looked for. */
const AFTER = [2, 4, 8] as const;
/** Readings of a page on an unchanged lab without which no step can be called. */
export const LEAST_READINGS = LEAST_BEFORE + AFTER[0];

/** Readings with figures since the lab last changed, oldest first in: those in which a step is sought. */
export function comparableReadings(readings: readonly Pick<PageReading, 'setting'>[]): number {
	const known = readings.filter(({ setting }) => setting !== null);
	const newest = known.at(-1)?.setting ?? null;
	const before = known.findLastIndex(({ setting }) => settingParts(setting, newest).length > 0);
	return known.length - 1 - before;
}

/** Standard errors more for a step that was not found at once: two chances more are paid for (simulated). */
const LATER_PENALTY = 0.4;
/** Chance of any false call in a quarter. */
const LEVEL = 0.05;
const INTERVAL = normalQuantile(0.975);
/** Standard errors from which a page is loaded more often in the same reading. */
const HINT = 1.28;

/** Figures of one metric of one page, and where the part that is compared now begins. */
interface Series {
	history: PageHistory;
	metric: MetricId;
	/** Readings with figures, in order. */
	readings: PageReading[];
	blocks: Block[];
	control: (Block | null)[];
	/** Index into the blocks of the first that can be compared with the newest. */
	start: number;
}

export function findInHistory(histories: readonly PageHistory[], options: HistoryOptions): HistoryFindings {
	const breaks = histories.flatMap(breaksOf);
	const numbers = [...new Set(histories.flatMap(({ readings }) => readings.map(({ reading }) => reading)))];
	const all = histories.flatMap((history) => options.metrics.map((metric) => emptySeries(history, metric)));
	const changes: Change[] = [];
	for (const number of numbers.sort((a, b) => a - b)) {
		const grown = all.filter((series) => grow(series, number));
		changes.push(...callsAt(all, grown, number, options));
	}
	return { changes, breaks, wild: all.flatMap((series) => wildOf(series, changes)), between: pooledBetween(all) };
}

/** Pages that a reading should load more often: something may have moved, and so few loads cannot tell. */
export function hintsIn(
	histories: readonly PageHistory[],
	options: Pick<HistoryOptions, 'metrics'>
): { page: number; condition: string }[] {
	const all = histories.flatMap((history) => options.metrics.map((metric) => wholeSeries(history, metric)));
	const newest = Math.max(0, ...histories.map(({ readings }) => readings.at(-1)?.reading ?? 0));
	const between = pooledBetween(all);
	return histories
		.filter(({ page, condition }) =>
			all.some(
				(series) =>
					series.history.page === page &&
					series.history.condition === condition &&
					series.readings.at(-1)?.reading === newest &&
					[1, 2].some((after) => (lookAt(series, after, between)?.z ?? 0) > HINT)
			)
		)
		.map(({ page, condition }) => ({ page, condition }));
}

function emptySeries(history: PageHistory, metric: MetricId): Series {
	return { history, metric, readings: [], blocks: [], control: [], start: 0 };
}

function wholeSeries(history: PageHistory, metric: MetricId): Series {
	const series = emptySeries(history, metric);
	for (const { reading } of history.readings) grow(series, reading);
	return series;
}

/** @returns whether the reading has figures of the series */
function grow(series: Series, number: number): boolean {
	const reading = series.history.readings.find((candidate) => candidate.reading === number);
	const block = blockOf(measured(reading?.figures[series.metric]));
	if (!reading || !block) return false;
	const last = series.readings.at(-1);
	if (last && settingParts(last.setting, reading.setting).length) series.start = series.blocks.length;
	series.readings.push(reading);
	series.blocks.push(block);
	series.control.push(blockOf(measured(reading.control?.[series.metric])));
	return true;
}

interface Looked {
	series: Series;
	after: number;
	before: Block[];
	later: Block[];
	z: number;
	size: number;
	error: number;
	isCorrected: boolean;
}

function lookAt(series: Series, after: number, between: number): Looked | null {
	const split = series.blocks.length - after;
	if (split - series.start < LEAST_BEFORE) return null;
	const from = Math.max(series.start, split - MOST_BEFORE);
	const at = split - from;
	const { blocks, share } = withoutDrift(series.blocks.slice(from), series.control.slice(from));
	const [before, later] = [blocks.slice(0, at), blocks.slice(at)];
	const { z, size, error } = stepOf(before, later, between);
	return { series, after, before, later, z, size, error, isCorrected: share > 0 };
}

/** Of all series, as long as their newest two readings are not counted: a step there is no scatter. */
function pooledBetween(all: readonly Series[]): number {
	return varianceBetween(
		all.flatMap((series) => {
			const looked = lookAt(series, AFTER[0], 0);
			return looked ? [looked.before] : [];
		})
	);
}

function callsAt(
	all: readonly Series[],
	grown: readonly Series[],
	number: number,
	{ margins, readingsAQuarter }: HistoryOptions
): Change[] {
	const open = grown.filter((series) => series.blocks.length - series.start >= LEAST_BEFORE + AFTER[0]);
	if (!open.length) return [];
	const between = pooledBetween(all);
	// What never moves cannot be called by chance, and takes no part of the chance.
	const tests = open.filter(({ blocks, start }) => varianceWithin(blocks.slice(start)) > 0).length;
	const critical = criticalZ(LEVEL / readingsAQuarter, tests);
	return open.flatMap((series) => {
		const found = AFTER.map((after) => lookAt(series, after, between)).filter(
			(looked): looked is Looked =>
				looked !== null &&
				looked.z > critical + (looked.after === AFTER[0] ? 0 : LATER_PENALTY) &&
				middlesDiffer(looked.before, looked.later)
		);
		if (!found.length) return [];
		const best = sharpest(series, between, found);
		const split = series.blocks.length - best.after;
		series.start = split;
		return [changeOf(best, split, number, margins)];
	});
}

/** Where exactly: among all places from the newest two readings back, the one that stands out most. */
function sharpest(series: Series, between: number, found: readonly Looked[]): Looked {
	const most = AFTER.at(-1)!;
	const places = Array.from({ length: most - 1 }, (_, i) => lookAt(series, i + AFTER[0], between));
	return places.reduce<Looked>((best, looked) => (looked && looked.z > best.z ? looked : best), found[0]!);
}

function changeOf(
	{ series, before, later, size, error, isCorrected }: Looked,
	split: number,
	calledAt: number,
	margins: HistoryOptions['margins']
): Change {
	const { metric, history, readings } = series;
	const [from, to] = [before, later].map((side) => median(side.map(({ middle }) => middle))) as [number, number];
	const margin = marginFor(metric, from, margins ?? undefined);
	const interval = { estimate: size, low: size - INTERVAL * error, high: size + INTERVAL * error };
	return {
		page: history.page,
		condition: history.condition,
		metric,
		before: readings[split - 1]!.reading,
		after: readings[split]!.reading,
		calledAt,
		from,
		to,
		shift: { ...interval, relative: ratioMakesSense(metric) && from > 0 ? size / from : null },
		margin,
		verdict: decide({ metric, shift: interval, margin, called: true }),
		isCorrected
	};
}

function breaksOf({ page, condition, readings }: PageHistory): Break[] {
	const readable = readings.filter(({ setting }) => setting !== null);
	return readable.slice(1).flatMap((reading, i) => {
		const before = readable[i]!;
		const parts = settingParts(before.setting, reading.setting);
		if (!parts.length) return [];
		const control = controlOver(before, reading);
		return [{ page, condition, reading: reading.reading, parts, from: before.setting!, to: reading.setting!, control }];
	});
}

function controlOver(before: PageReading, after: PageReading): Break['control'] {
	return (Object.keys(after.control ?? {}) as MetricId[]).flatMap((metric) => {
		const [from, to] = [before, after].map(({ control }) => blockOf(measured(control?.[metric]))?.middle);
		return from === undefined || to === undefined ? [] : [{ metric, from, to }];
	});
}

/** How far a reading lies out, in scaled MADs, before it is marked (the same cut as for loads). */
const WILD_CUT = 3.5;

/** Far from what came before and after it without a step in between. */
function wildOf({ history, metric, readings, blocks }: Series, changes: readonly Change[]): Wild[] {
	const steps = changes.filter(
		(change) => change.page === history.page && change.condition === history.condition && change.metric === metric
	);
	const starts = readings.flatMap((reading, i) => {
		const isBreak = i > 0 && settingParts(readings[i - 1]!.setting, reading.setting).length > 0;
		return i === 0 || isBreak || steps.some(({ after }) => after === reading.reading) ? [i] : [];
	});
	return starts.flatMap((start, i) => {
		const own = blocks.slice(start, starts[i + 1]).map(({ middle }) => middle);
		if (own.length < LEAST_BEFORE) return [];
		const [centre, spread] = [median(own), scaledMad(own)];
		const isFar = (middle: number) =>
			spread > 0 &&
			Math.abs(middle - centre) > WILD_CUT * spread &&
			Math.abs(middle - centre) > marginFor(metric, centre);
		return own.flatMap((middle, j) =>
			isFar(middle)
				? [{ page: history.page, condition: history.condition, metric, reading: readings[start + j]!.reading }]
				: []
		);
	});
}
