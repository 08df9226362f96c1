/**
 * When a watch is read. Times are those of the agency's own clock: `croner` follows it over the changes to and from
 * summer time.
 */
import { Cron } from 'croner';
import * as v from 'valibot';
import { isTimeZone } from '../field/localDay';

/**
 * A week has one reading, each week on another day and at another hour, and a day one at another hour, so that no habit
 * of an hour is read as the page (a backup at three, a newsletter on Tuesdays). In seven weeks each weekday comes once.
 */
const WEEKLY = ['10 4 * * 1', '40 10 * * 4', '20 15 * * 2', '50 20 * * 6', '30 8 * * 3', '10 13 * * 0', '40 18 * * 5'];
const DAILY = ['20 3', '40 9', '10 14', '50 19', '30 11', '20 16', '40 22'];
const DAY_MS = 86_400_000;
const QUARTER_DAYS = 91;
/** No reading is worth being taken more often than this. */
const LEAST_GAP_MS = 3_600_000;

export const Schedule = v.pipe(
	v.object({
		every: v.picklist(
			['week', 'day', 'pattern', 'demand'],
			'A watch is read each week, each day, by a pattern or on demand.'
		),
		/** Five fields of cron: minute, hour, day of the month, month, weekday. */
		pattern: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(100, 'A pattern has at most 100 characters.')), ''),
		timeZone: v.optional(
			v.pipe(v.string(), v.check(isTimeZone, 'This time zone is not known. Write it as Europe/London.')),
			'UTC'
		)
	}),
	v.forward(
		v.check(
			({ every, pattern, timeZone }) => every !== 'pattern' || problemOf(pattern, timeZone) === null,
			({ input }) => {
				const { pattern, timeZone } = input as { pattern: string; timeZone: string };
				return problemOf(pattern, timeZone)!;
			}
		),
		['pattern']
	)
);
export type Schedule = v.InferOutput<typeof Schedule>;

function problemOf(pattern: string, timezone: string): string | null {
	if (pattern.split(/\s+/).length !== 5)
		return 'A pattern has five fields: minute, hour, day of the month, month, weekday. For example 30 6 * * 1,4.';
	try {
		const [first, second] = new Cron(pattern, { timezone, paused: true }).nextRuns(2);
		if (!first) return 'This pattern names no day that will come.';
		if (second && second.getTime() - first.getTime() < LEAST_GAP_MS) return 'At most one reading an hour.';
		return null;
	} catch (error) {
		return `This pattern cannot be read: ${(error as Error).message}`;
	}
}

/** The first reading after a moment; null on demand. */
export function nextReading({ every, pattern, timeZone }: Schedule, after: Date): Date | null {
	if (every === 'demand') return null;
	if (every === 'pattern') return nextOf(pattern, timeZone, after);
	const slots = every === 'week' ? WEEKLY : DAILY.map((time) => `${time} * * *`);
	const periodDays = every === 'week' ? 7 : 1;
	const candidates = slots.flatMap((slot, turn) =>
		firstInTurn(slot, turn, { periodDays, timeZone, turns: slots.length }, after)
	);
	return new Date(Math.min(...candidates.map((candidate) => candidate.getTime())));
}

interface Turns {
	periodDays: number;
	timeZone: string;
	turns: number;
}

/** The first time of a slot after a moment that falls in a week (or day) whose turn it is. */
function firstInTurn(slot: string, turn: number, { periodDays, timeZone, turns }: Turns, after: Date): Date[] {
	let at: Date | null = after;
	for (let tries = 0; tries <= turns + 1 && at; tries++) {
		at = nextOf(slot, timeZone, at);
		if (at && periodOf(at, timeZone, periodDays) % turns === turn) return [at];
	}
	return [];
}

/** Number of the week (from Monday) or day on the agency's calendar. */
function periodOf(at: Date, timeZone: string, days: number): number {
	const parts = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
	const day = Math.floor(Date.parse(`${parts.format(at)}T00:00:00Z`) / DAY_MS);
	// 1 January 1970 was a Thursday.
	return days === 7 ? Math.floor((day + 3) / 7) : day;
}

const nextOf = (pattern: string, timezone: string, after: Date) =>
	new Cron(pattern, { timezone, paused: true }).nextRun(after);

/** Readings that should have been between two moments, both left out; at most so many are counted. */
export function readingsBetween(schedule: Schedule, from: Date, until: Date, most = 1000): number {
	let count = 0;
	for (let at = nextReading(schedule, from); at && at < until && count < most; at = nextReading(schedule, at)) count++;
	return count;
}

/** Chances of a false call in a quarter of a year. On demand: as if it were each week. */
export function readingsAQuarter(schedule: Schedule, from: Date): number {
	if (schedule.every === 'week' || schedule.every === 'demand') return 13;
	if (schedule.every === 'day') return QUARTER_DAYS;
	return Math.max(1, readingsBetween(schedule, from, new Date(from.getTime() + QUARTER_DAYS * DAY_MS)));
}
