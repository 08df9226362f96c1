/** Metrics from the evidence of one load: pure functions over plain entries. Times in ms since the navigation began. */
import type { TaskRecord } from '../record/record';

export interface ShiftEntry {
	atMs: number;
	value: number;
	recentInput: boolean;
}

export interface ShiftWindow {
	startMs: number;
	endMs: number;
	value: number;
}

/**
 * Session windows of layout shifts without recent input: a window ends at a gap of 1 s or more, or once it is 5 s long.
 * Source: W3C Layout Instability; web.dev, "Cumulative Layout Shift".
 */
export function shiftWindows(shifts: readonly ShiftEntry[]): ShiftWindow[] {
	const windows: ShiftWindow[] = [];
	for (const shift of [...shifts].sort((a, b) => a.atMs - b.atMs)) {
		if (shift.recentInput) continue;
		const open = windows.at(-1);
		if (open && shift.atMs - open.endMs < 1000 && shift.atMs - open.startMs < 5000) {
			open.endMs = shift.atMs;
			open.value += shift.value;
		} else windows.push({ startMs: shift.atMs, endMs: shift.atMs, value: shift.value });
	}
	return windows;
}

/** Cumulative Layout Shift: the largest session window; 0 without shifts. */
export function cumulativeLayoutShift(shifts: readonly ShiftEntry[]): number {
	return shiftWindows(shifts).reduce((largest, window) => Math.max(largest, window.value), 0);
}

/**
 * Total Blocking Time: the part of each long task beyond 50 ms, tasks clipped to [from, to].
 * Source: W3C Long Tasks for the tasks; the window is house.
 */
export function totalBlockingTime(tasks: readonly TaskRecord[], fromMs: number, toMs: number): number {
	return tasks.reduce((sum, task) => {
		const start = Math.max(task.startMs, fromMs);
		const end = Math.min(task.startMs + task.durationMs, toMs);
		return sum + Math.max(0, end - start - 50);
	}, 0);
}

/**
 * Interaction to Next Paint: the worst interaction, leaving out one per 50.
 * Source: W3C Event Timing; web.dev, "Interaction to Next Paint".
 * @param durations one per interaction, ms; null for none
 */
export function interactionToNextPaint(durations: readonly number[]): number | null {
	const worstFirst = [...durations].sort((a, b) => b - a);
	return worstFirst[Math.min(worstFirst.length - 1, Math.floor(durations.length / 50))] ?? null;
}

export interface NetworkSpan {
	startMs: number;
	/** null while unfinished. */
	endMs: number | null;
}

/**
 * Fully loaded: the end of the last response before the network was quiet for `quietMs` after the load event.
 * Practice; the numbers are house.
 */
export function fullyLoaded(spans: readonly NetworkSpan[], onloadMs: number, quietMs = 2000): number {
	const finished = spans
		.map((span) => ({ startMs: span.startMs, endMs: span.endMs ?? Infinity }))
		.sort((a, b) => a.startMs - b.startMs);
	let lastEnd = 0;
	for (const span of finished) {
		const quietFrom = Math.max(lastEnd, onloadMs);
		if (span.startMs - quietFrom >= quietMs) break;
		if (Number.isFinite(span.endMs)) lastEnd = Math.max(lastEnd, span.endMs);
	}
	return Math.max(lastEnd, onloadMs);
}
