/**
 * The demonstration's days: its year is written down once and moved by whole weeks when a data folder is made, so that
 * it is as young on any day.
 */
import { addDays } from '$core/field/windows';

const WEEK_MS = 7 * 86_400_000;

/** By how many weeks the simulated world of this folder is moved: told by whoever started it. */
export const movedWeeks = (): number => Number(process.env.ZAFRA_DEMO_WEEKS ?? 0);

/** @param day of the written year, as 2026-11-20 */
export const movedDay = (day: string): string => addDays(day, 7 * movedWeeks());

/** Whole weeks after which the newest of some moments lies in the week before now; 0 if it lies there or later. */
export const weeksSince = (newest: string, now: number): number =>
	Math.max(0, Math.floor((now - Date.parse(newest)) / WEEK_MS));

/** @param iso UTC */
export const laterBy = (weeks: number, iso: string): string =>
	new Date(Date.parse(iso) + weeks * WEEK_MS).toISOString();
