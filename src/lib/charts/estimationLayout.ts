/** Where dots, shifts and names of the estimation plot stand: pure. */
import { extent } from 'd3-array';
import type { ShiftResult } from '$core/trial/types';

/** Room above and below the dots, as a share of their span. */
const MARGIN = 0.08;
/** The band of shifts that are too small to matter is seen whole, with a little around it. */
const BAND = 1.3;
/** Widest spread of the dots of one arm: px, and as a share of the distance between arms. */
const SPREAD_PX = 46;
const SPREAD_SHARE = 0.55;

/** The values that the axis of the dots must show; never below zero. */
export function valueDomain(values: readonly number[]): [low: number, high: number] {
	const [low = 0, high = 1] = extent(values);
	const room = (high - low || Math.abs(high) || 1) * MARGIN;
	return [Math.max(0, low - room), high + room];
}

/** The shifts that their axis must show: every interval, every band, and zero. */
export function shiftDomain(results: readonly Pick<ShiftResult, 'shift' | 'margin'>[]): [low: number, high: number] {
	const ends = results.flatMap(({ shift, margin }) =>
		shift ? [shift.low ?? shift.estimate, shift.high ?? shift.estimate, margin * BAND, -margin * BAND] : []
	);
	if (!ends.length) return [-1, 1];
	const [low, high] = extent([...ends, 0]) as [number, number];
	return [low, high];
}

/** How far from the middle of its arm a dot stands, px: by its round, so that a drift over the rounds can be seen. */
export function roundOffset(round: number, rounds: number, armStep: number): number {
	if (rounds <= 1) return 0;
	return ((round - 1) / (rounds - 1) - 0.5) * Math.min(SPREAD_PX, armStep * SPREAD_SHARE);
}

/** A name in at most two lines of about so many letters; what does not fit is cut and shown to be. */
export function nameLines(text: string, letters: number): string[] {
	const lines = [''];
	for (const word of text.split(' ')) {
		const longer = `${lines.at(-1)} ${word}`.trim();
		if (longer.length <= letters || lines.at(-1) === '') lines[lines.length - 1] = longer;
		else lines.push(word);
	}
	const cut = (line: string) => (line.length > letters + 2 ? `${line.slice(0, letters + 1)}…` : line);
	return lines.length > 2 ? [cut(lines[0]!), cut(lines.slice(1).join(' '))] : lines.map(cut);
}
