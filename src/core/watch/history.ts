/**
 * The history of what is watched: where figures stepped beyond the noise, where the lab itself changed, and which
 * readings stand alone.
 *
 * Readings are looked at one after the other, as they came, so that a history says today what it said on the day. A
 * call once made stays; a level that goes on moving in the same direction is the same change, which grows. All tests of
 * a quarter share a chance of 5 % of any false call: it is divided among the readings of a quarter and among what is
 * tested at each (Bonferroni); simulated in `bench/watchRules`.
 */
import { marginFor, type Margin, type MetricId } from '../metrics/catalogue';
import { decide } from '../trial/judge/verdict';
import { ratioMakesSense } from '../trial/judge/measures';
import { median } from '../stats/summary';
import { normalQuantile } from '../stats/normal';
import { breaksOf, type Break } from './breaks';
import { levelAtEnd, levelAtStart, type Level } from './level';
import { canLook, lookAt, LOOKS_AFTER, missingReadings, standsOut, type Looked } from './look';
import type { PageHistory } from './reading';
import {
	correctedOf,
	emptySeries,
	grow,
	knownFrom,
	scatterOf,
	shrunkScatter,
	startAnew,
	wholeSeries,
	type Known,
	type Series
} from './series';
import { difference, varianceWithin } from './step';
import type { Change } from './change';
import { wildOf, type Wild } from './wild';

export type { Change } from './change';

interface HistoryOptions {
	/** What calls are made on. */
	metrics: readonly MetricId[];
	margins: Partial<Record<MetricId, Margin>> | null;
	readingsAQuarter: number;
}

export interface HistoryFindings {
	changes: Change[];
	breaks: Break[];
	wild: Wild[];
	/** What is known of each figure, as of the newest reading. */
	figures: FigureState[];
}

export interface FigureState {
	page: number;
	condition: string;
	metric: MetricId;
	/** How readings differ beyond their loads: variance as a share of the level squared. */
	between: number;
	/** Readings that are still missing before a step can be called. */
	missing: number;
}

/** When its newest part was called. */
export const lastCalled = ({ calledAt, grew }: Pick<Change, 'calledAt' | 'grew'>): number =>
	grew.at(-1)?.calledAt ?? calledAt;

/** First reading of the newest part of changes that went on; null where none did. */
export function grownUntil(changes: readonly Pick<Change, 'grew'>[]): number | null {
	const parts = changes.flatMap(({ grew }) => grew.map(({ after }) => after));
	return parts.length ? Math.max(...parts) : null;
}

/**
 * Changes of one page under some conditions at the same time are one event, in the order of the calls: a step of one
 * metric may be seen a reading later than that of another.
 */
export function eventsOf(changes: readonly Change[]): Change[][] {
	const events: Change[][] = [];
	for (const change of changes) {
		const together = events.find((event) => {
			const { page, condition } = event[0]!;
			const [first, last] = [Math.min(...event.map(({ after }) => after)), Math.max(...event.map(lastCalled))];
			const isOwn = page === change.page && condition === change.condition;
			return (
				isOwn &&
				change.after <= last &&
				lastCalled(change) >= first &&
				!event.some(({ metric }) => metric === change.metric)
			);
		});
		if (together) together.push(change);
		else events.push([change]);
	}
	return events;
}

/** Chance of any false call in a quarter: of 5 %, a part pays for scatter that is itself only estimated (simulated). */
const LEVEL = 0.03;
const INTERVAL = normalQuantile(0.975);
/** Standard errors from which a page is loaded more often in the same reading. */
const HINT = 1.28;
/** A level that goes on moving within so many readings is the same change. */
const GROWS_WITHIN = 8;

export function findInHistory(histories: readonly PageHistory[], options: HistoryOptions): HistoryFindings {
	const breaks = histories.flatMap(breaksOf);
	const numbers = [...new Set(histories.flatMap(({ readings }) => readings.map(({ reading }) => reading)))];
	const all = histories.flatMap((history) => options.metrics.map((metric) => emptySeries(history, metric)));
	const calls: Call[] = [];
	for (const number of numbers.sort((a, b) => a - b)) {
		const grown = all.filter((series) => grow(series, number));
		callAt(all, { grown, number, historyOptions: options, calls });
	}
	const scatterOfAll = knownFrom(all, LOOKS_AFTER[0]);
	const changes = calls.map(({ change }) => change);
	return {
		changes,
		breaks,
		wild: all.flatMap((series) => wildOf(series, changes)),
		figures: statesOf(all, scatterOfAll)
	};
}

/** Pages that a reading should load more often: something may have moved, and so few loads cannot tell. */
export function hintsIn(
	histories: readonly PageHistory[],
	options: Pick<HistoryOptions, 'metrics'>
): { page: number; condition: string }[] {
	const all = histories.flatMap((history) => options.metrics.map((metric) => wholeSeries(history, metric)));
	const newest = Math.max(0, ...histories.map(({ readings }) => readings.at(-1)?.reading ?? 0));
	const scatterOfAll = knownFrom(all, LOOKS_AFTER[0]);
	return histories
		.filter(({ page, condition }) =>
			all.some(
				(series) =>
					series.history.page === page &&
					series.history.condition === condition &&
					series.readings.at(-1)?.reading === newest &&
					[1, 2].some((after) => Math.abs(lookAt(series, after, scatterOfAll)?.step.z ?? 0) > HINT)
			)
		)
		.map(({ page, condition }) => ({ page, condition }));
}

function statesOf(all: readonly Series[], scatterOfAll: Known): FigureState[] {
	return all.flatMap((series) => {
		if (!series.blocks.length) return [];
		const { page, condition } = series.history;
		const { between } = shrunkScatter(series, scatterOfAll, LOOKS_AFTER[0]);
		return [{ page, condition, metric: series.metric, between, missing: missingReadings(series) }];
	});
}

/** A change, and what it takes to tell how far it has grown. */
interface Call {
	series: Series;
	change: Change;
	/** Before the whole of it. */
	origin: Level;
	/** Index of the newest part of it. */
	split: number;
}

function callAt(
	all: readonly Series[],
	{
		grown,
		number,
		historyOptions: { margins, readingsAQuarter },
		calls
	}: { grown: readonly Series[]; number: number; historyOptions: HistoryOptions; calls: Call[] }
): void {
	const open = grown.filter((series) => canLook(series, LOOKS_AFTER[0]));
	if (!open.length) return;
	const scatterOfAll = knownFrom(all, LOOKS_AFTER[0]);
	// What never moves cannot be called by chance, and takes no part of the chance.
	const moving = open.filter(moves);
	for (const series of open) {
		const { page } = series.history;
		const ofPage = moving.filter(({ history }) => history.page === page).length;
		const chance = { level: LEVEL / readingsAQuarter, tests: moving.length, ofPage };
		const found = LOOKS_AFTER.flatMap((after) => {
			const looked = lookAt(series, after, scatterOfAll);
			return looked && standsOut(looked, chance) ? [looked] : [];
		});
		if (!found.length) continue;
		const best = sharpest(series, scatterOfAll, found);
		const split = series.blocks.length - best.after;
		describeChange(series, best, split, { number, margins, calls });
		startAnew(series, split, true);
	}
}

function moves(series: Series): boolean {
	const { blocks } = correctedOf(series);
	return varianceWithin(blocks) > 0 || (scatterOf(series, LOOKS_AFTER[0])?.between ?? 0) > 0;
}

/** Where exactly: among all places from the newest two readings back, the one that stands out most. */
function sharpest(series: Series, scatterOfAll: Known, found: readonly Looked[]): Looked {
	const [least, most] = [LOOKS_AFTER[0], LOOKS_AFTER.at(-1)!];
	const places = Array.from({ length: most - least + 1 }, (_, i) => lookAt(series, i + least, scatterOfAll));
	return places.reduce<Looked>(
		(best, looked) => (looked && Math.abs(looked.step.z) > Math.abs(best.step.z) ? looked : best),
		found[0]!
	);
}

interface Telling {
	number: number;
	margins: HistoryOptions['margins'];
	calls: Call[];
}

/** As a change of its own, or as the growth of one that has not ended. */
function describeChange(series: Series, looked: Looked, split: number, { number, margins, calls }: Telling): void {
	const { history, metric, readings } = series;
	const isUp = looked.step.size > 0;
	const last = calls.findLast((call) => call.series === series);
	const grows = last && last.change.shift.estimate > 0 === isUp && split - last.split <= GROWS_WITHIN;
	const after = readings[split]!.reading;
	const [from, to] = [looked.before, looked.later].map((side) => median(side.map(({ value }) => value))) as [
		number,
		number
	];
	if (grows) {
		const { size, error } = difference(last.origin, levelAtStart(looked.later)!);
		const grew = [...last.change.grew, { after, calledAt: number }];
		Object.assign(last.change, { ...sized(metric, { from: last.origin.value, size, error, margins }), to, grew });
		last.split = split;
		return;
	}
	const origin = levelAtEnd(looked.before)!;
	calls.push({
		series,
		split,
		origin: { ...origin, variance: origin.variance + looked.later[0]!.moved },
		change: {
			page: history.page,
			condition: history.condition,
			metric,
			before: readings[split - 1]!.reading,
			after,
			calledAt: number,
			grew: [],
			from,
			to,
			...sized(metric, { from, size: looked.step.size, error: looked.step.error, margins }),
			isCorrected: correctedOf(series).isCorrected
		}
	});
}

function sized(
	metric: MetricId,
	{ from, size, error, margins }: { from: number; size: number; error: number; margins: HistoryOptions['margins'] }
): Pick<Change, 'shift' | 'margin' | 'verdict'> {
	const margin = marginFor(metric, from, margins ?? undefined);
	const interval = { estimate: size, low: size - INTERVAL * error, high: size + INTERVAL * error };
	return {
		shift: { ...interval, relative: ratioMakesSense(metric) && from > 0 ? size / from : null },
		margin,
		verdict: decide({ metric, shift: interval, margin, called: true })
	};
}
