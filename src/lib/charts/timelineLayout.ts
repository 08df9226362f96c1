/** Where things stand on the time axis of a load: pure, in pixels. */
import { CALM_LIMITS } from '$core/load/calm';
import type { CalmTrack } from '$core/load/record';
import type { ScaleLinear } from 'd3-scale';
import type { FrameRecord } from '$core/load/record';

/** A picture of the strip: the moment that it shows, where its right edge stands, and its left edge. */
export interface StripSlot {
	at: number;
	x: number;
}

const GAP = 6;

/** How many pictures fit between two places; at least two. */
export function slotCount(from: number, to: number, frameWidth: number): number {
	return Math.max(2, Math.floor((to - from) / (frameWidth + GAP)));
}

/** Pictures spread evenly; each ends at the moment that it shows. */
export function stripSlots(x: ScaleLinear<number, number>, from: number, to: number, frameWidth: number): StripSlot[] {
	const slots = slotCount(from, to, frameWidth);
	const width = (to - from) / slots;
	return Array.from({ length: slots }, (_, i) => {
		const edge = from + (i + 1) * width;
		return { at: x.invert(edge), x: edge - frameWidth };
	});
}

/** Number of the frame that was on screen at a moment, from 0. */
export function frameAt(frames: readonly FrameRecord[], ms: number): number {
	return Math.max(
		0,
		frames.findLastIndex((frame) => frame.atMs <= ms)
	);
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
	x: number;
	/** Row of its label, from the top. */
	level: number;
	/** The label stands left of the line, since it would leave the chart on the right. */
	flip: boolean;
}

/** About the width of a label: its letters and its figure, px. */
const LETTER = 6.6;
const FIGURE = 52;

/** Labels of lines that stand close together go down a step. @param room width of the chart, px */
export function placeLines(lines: readonly MetricLine[], x: (ms: number) => number, room: number): PlacedLine[] {
	const ends: number[] = [];
	return [...lines]
		.sort((a, b) => a.atMs - b.atMs)
		.map((line) => {
			const at = x(line.atMs);
			const size = line.name.length * LETTER + FIGURE;
			const flip = at + size > room;
			const from = flip ? at - size : at;
			const free = ends.findIndex((taken) => taken < from);
			const level = free < 0 ? ends.length : free;
			ends[level] = from + size;
			return { ...line, x: at, level, flip };
		});
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
