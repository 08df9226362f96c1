/** Where the readings of a history stand: time from left to right, figures from zero upward. */
import { ticks } from 'd3-array';
import { scaleLinear, scaleUtc } from 'd3-scale';

export interface HistoryPoint {
	/** UTC ISO. */
	at: string;
	middle: number;
	low: number;
	high: number;
}

export interface HistoryScales {
	x(at: string): number;
	y(value: number): number;
	/** Values at round steps. */
	rows: number[];
	/** First days of months (or of weeks in a short history), as day texts. */
	days: string[];
	isWithin(at: string): boolean;
}

const ROWS = 4;
/** Beyond this share above the largest middle, the spread of a wild reading is cut off. */
const HEADROOM = 1.25;
const MOST_DAY_TICKS = 7;

/** @param thresholds are in sight where they are near the figures */
export function placeHistory(
	points: readonly HistoryPoint[],
	thresholds: readonly number[],
	width: number,
	height: number
): HistoryScales | null {
	const [first, last] = [points[0], points.at(-1)];
	if (!first || !last) return null;
	const middles = Math.max(...points.map(({ middle }) => middle));
	const largest = Math.min(middles * HEADROOM, Math.max(...points.map(({ high }) => high)));
	const near = thresholds.filter((value) => value <= largest * HEADROOM);
	const top = Math.max(largest, ...near) * 1.05 || 1;
	const time = scaleUtc()
		.domain([new Date(first.at), new Date(last.at === first.at ? Date.parse(last.at) + 1 : last.at)])
		.range([0, width])
		// The first day of a history begins before its first reading.
		.clamp(true);
	const value = scaleLinear().domain([0, top]).range([height, 0]);
	return {
		x: (at) => time(new Date(at)),
		y: (figure) => Math.max(0, value(figure)),
		rows: ticks(0, top, ROWS),
		// Of one that is hours old many ticks fall on the same day.
		days: [...new Set(time.ticks(MOST_DAY_TICKS).map((day) => day.toISOString().slice(0, 10)))],
		isWithin: (at) => at >= first.at.slice(0, at.length) && at <= last.at
	};
}

/** Parts of a history between which nothing is compared: readings up to each break. */
export function segmentsOf<Point extends { at: string }>(
	points: readonly Point[],
	breaks: readonly string[]
): Point[][] {
	const starts = [...breaks].sort();
	const segments: Point[][] = [];
	let next = 0;
	for (const point of points) {
		const crossed = starts.slice(next).filter((start) => start <= point.at).length;
		next += crossed;
		if (crossed || !segments.length) segments.push([]);
		segments.at(-1)!.push(point);
	}
	return segments;
}
