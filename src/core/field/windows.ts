/** Days and windows of field data. Windows of 28 days that end a week apart share three quarters of their visits. */
import { WINDOW_DAYS } from './reading';

const DAY_MS = 86_400_000;

const dayOf = (ms: number) => new Date(ms).toISOString().slice(0, 10);
const msOf = (day: string) => Date.parse(`${day}T00:00:00.000Z`);

export function addDays(day: string, days: number): string {
	return dayOf(msOf(day) + days * DAY_MS);
}

export const daysBetween = (from: string, until: string): number => Math.round((msOf(until) - msOf(from)) / DAY_MS);

/** First day of the window that ends on a day, both counted. */
export const windowStart = (until: string): string => addDays(until, 1 - WINDOW_DAYS);

/** Ends of windows, newest last. @param stepDays between two of them */
export function windowEnds(newest: string, count: number, stepDays: number): string[] {
	return Array.from({ length: count }, (_, i) => addDays(newest, -(count - 1 - i) * stepDays));
}

/** Share of its days that a window has in common with another of the same length, 0 to 1. */
export function overlapOf(a: string, b: string, days = WINDOW_DAYS): number {
	return Math.max(0, days - Math.abs(daysBetween(a, b))) / days;
}

/**
 * What share of a window's days lie after a change: a step on one day shows as a ramp over the windows that hold it.
 * @param until last day of the window @param change first day after it
 */
export function shareAfter(until: string, change: string, days = WINDOW_DAYS): number {
	return Math.min(1, Math.max(0, (daysBetween(change, until) + 1) / days));
}
