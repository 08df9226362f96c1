/** Where the windows of a history stand: each as wide as its days, so that it is seen how much two of them share. */
import { daysBetween } from '$core/field/windows';

export interface Window {
	from: string;
	until: string;
	value: number;
}

export interface PlacedWindow extends Window {
	/** 0 to 1 of the width, and of the height from the top. */
	x: number;
	width: number;
	y: number;
}

/** Values from zero to a little above the largest, or the threshold; days from the first to the last. */
export function placeWindows(
	windows: readonly Window[],
	thresholds: readonly number[]
): { placed: PlacedWindow[]; top: number } {
	if (!windows.length) return { placed: [], top: 1 };
	const { first, days } = spanOf(windows);
	const top = 1.1 * Math.max(...windows.map(({ value }) => value), thresholds[0] ?? 0);
	const placed = windows.map((window) => ({
		...window,
		x: daysBetween(first, window.from) / days,
		width: (daysBetween(window.from, window.until) + 1) / days,
		y: 1 - window.value / top
	}));
	return { placed, top };
}

/** Where days stand on the axis of the windows; those outside of it are left out. */
export function placeDays<Day extends { day: string }>(
	windows: readonly Window[],
	days: readonly Day[]
): (Day & { x: number })[] {
	const { first, days: all } = spanOf(windows);
	if (all === 0) return [];
	return days.map((day) => ({ ...day, x: daysBetween(first, day.day) / all })).filter(({ x }) => x >= 0 && x <= 1);
}

/** First day and number of days of all windows together. */
function spanOf(windows: readonly Window[]): { first: string; days: number } {
	if (!windows.length) return { first: '', days: 0 };
	const first = windows.reduce((least, { from }) => (from < least ? from : least), windows[0]!.from);
	const last = windows.reduce((most, { until }) => (until > most ? until : most), windows[0]!.until);
	return { first, days: daysBetween(first, last) + 1 };
}
