/** Where things stand on the time axis of a load: pure. Places are shares of the axis, right at any width. */
import { CALM_LIMITS } from '$core/load/vitals/calm';
import type { CalmTrack, FrameRecord } from '$core/load/record/record';

/** A width of the chart from which on it is drawn so; the styles of LoadTimeline ask for the same widths. */
export interface ChartWidth {
	name: 'narrow' | 'wide' | 'widest';
	/** The least width of the chart, and what stands left and right of its axis, px. */
	least: number;
	left: number;
	right: number;
}

export const CHART_WIDTHS: readonly ChartWidth[] = [
	{ name: 'narrow', least: 320, left: 112, right: 8 },
	{ name: 'wide', least: 620, left: 226, right: 82 },
	{ name: 'widest', least: 820, left: 226, right: 82 }
];

/** A moment as a share of the axis, 0 to 1. @param endMs the last thing that is known; a little room follows it */
export const placeOf = (ms: number, endMs: number): number => ms / axisMs(endMs);

/** How long the axis is, ms. */
export const axisMs = (endMs: number): number => endMs * 1.02;

const GAP = 6;

/**
 * The moments of pictures spread evenly over the axis, as many as fit at the least width; each stands with its right
 * edge at its moment, ms.
 */
export function stripMoments({ least, left, right }: ChartWidth, endMs: number, frameWidth: number): number[] {
	const slots = Math.max(2, Math.floor((least - left - right) / (frameWidth + GAP)));
	return Array.from({ length: slots }, (_, i) => (axisMs(endMs) * (i + 1)) / slots);
}

/** Words for what happened after the picture before and by this one. */
export function notesBetween(
	notes: readonly { frame: number; words: string }[],
	frames: readonly FrameRecord[],
	since: number,
	at: number
): string[] {
	const within = ({ frame }: { frame: number }) => {
		const moment = frames[frame]?.atMs;
		return moment !== undefined && moment > since && moment <= at;
	};
	return [...new Set(notes.filter(within).map((note) => note.words))];
}

export interface MetricLine {
	name: string;
	atMs: number;
}

export interface PlacedLine extends MetricLine {
	/** Share of the axis. */
	place: number;
	/** Row of its label, from the top. */
	level: number;
	/** The label stands left of the line, since it would leave the chart on the right. */
	flip: boolean;
}

/** About the width of a label: its letters and its figure, px. */
const LETTER = 6.6;
const FIGURE = 52;

/**
 * Labels of lines that stand close together go down a step. Placed at the least width: where there is more room, lines
 * stand further apart and labels that are free of each other stay so.
 */
export function placeLines(lines: readonly MetricLine[], width: ChartWidth, endMs: number): PlacedLine[] {
	const axis = width.least - width.left - width.right;
	const ends: number[] = [];
	return [...lines]
		.sort((a, b) => a.atMs - b.atMs)
		.map((line) => {
			const place = placeOf(line.atMs, endMs);
			const at = place * axis;
			const size = line.name.length * LETTER + FIGURE;
			const flip = at + size > axis + width.right;
			const from = flip ? at - size : at;
			const free = ends.findIndex((taken) => taken < from);
			const level = free < 0 ? ends.length : free;
			ends[level] = from + size;
			return { ...line, place, level, flip };
		});
}

/** Height of a row of labels, px. */
export const LABEL_HEIGHT = 15;

/** Labels above a chart of a width, and the room that they take, px. */
export function labelsFor(lines: readonly MetricLine[], width: ChartWidth, endMs: number) {
	const placed = placeLines(lines, width, endMs);
	const rows = Math.max(0, ...placed.map(({ level }) => level)) + 1;
	return { name: width.name, placed, height: rows * LABEL_HEIGHT + 4 };
}

/** The end of the axis: the last thing that is known, at least 100 ms. */
export function lastMoment(moments: readonly (number | null)[]): number {
	return Math.max(100, ...moments.map((moment) => moment ?? 0));
}

export interface BusyBar {
	fromMs: number;
	toMs: number;
	/** Of what was wanted then, 0 to 1. */
	share: number;
	/** Beyond what a half second of a counted load may hold. */
	isHigh: boolean;
}

/** The samples of a machine in which something else ran, and the end of the last one. */
export function busyBars(track: CalmTrack): { bars: BusyBar[]; endMs: number } {
	const { endsMs, busyMs, stolenMs, foreignMs } = track;
	const bars = endsMs.flatMap((toMs, i): BusyBar[] => {
		const stolen = stolenMs?.[i] ?? 0;
		const others = stolen + (foreignMs?.[i] ?? 0);
		if (others <= 0) return [];
		const share = Math.min(1, others / (busyMs[i]! + stolen));
		return [{ fromMs: Math.max(0, endsMs[i - 1] ?? 0), toMs, share, isHigh: share > CALM_LIMITS.burst }];
	});
	return { bars, endMs: endsMs.at(-1) ?? 0 };
}
