/**
 * When the simulated world happens. Its year is written down once; a data folder moves all of it by whole weeks, so
 * that its newest week is the one before the folder was made, on whatever day that is.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** The Monday after the last week that is written down. */
const WRITTEN_UNTIL = Date.parse('2026-11-30T00:00:00Z');
const DAY_MS = 86_400_000;
const WEEK_MS = 7 * DAY_MS;

/** Weeks by which a world that is begun now is moved. */
export const weeksUntil = (now: number): number => Math.max(0, Math.floor((now - WRITTEN_UNTIL) / WEEK_MS));

/** The day of the written year that a day of the moved world is. @param day as 2026-11-20 */
export const writtenDay = (day: string, weeks: number): string =>
	new Date(Date.parse(`${day}T00:00:00Z`) - weeks * WEEK_MS).toISOString().slice(0, 10);

/**
 * By how many weeks the world of a folder is moved: settled when the folder is made. Folders of before that stay where
 * they were.
 */
export function weeksOfFolder(folder: string, now = Date.now()): number {
	const file = join(folder, 'calendar.json');
	if (existsSync(file)) return (JSON.parse(readFileSync(file, 'utf8')) as { weeks: number }).weeks;
	const weeks = existsSync(join(folder, 'visits.ndjson.gz')) ? 0 : weeksUntil(now);
	mkdirSync(folder, { recursive: true });
	writeFileSync(file, JSON.stringify({ weeks }));
	return weeks;
}
