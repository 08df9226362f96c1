/** Days as a clock on a wall has them, in the time zone of a site (IANA names). */

const HOUR_MS = 3_600_000;

/** @returns whether the time zone is known */
export function isTimeZone(zone: string): boolean {
	try {
		new Intl.DateTimeFormat('en', { timeZone: zone });
		return true;
	} catch {
		return false;
	}
}

/** The day on the wall: "2026-11-30". */
const dayIn = (timeZone: string, at: number): string =>
	new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(at);

/** Hour on the wall, 0 to 23. */
export const hourIn = (timeZone: string, at: number): number =>
	Number(new Intl.DateTimeFormat('en', { timeZone, hour: 'numeric', hourCycle: 'h23' }).format(at));

/**
 * The moment at which the day of another moment began.
 *
 * @param timeZone IANA name @param at ms since 1970
 * @returns ms since 1970; where midnight is skipped, the first moment of the day
 * @throws RangeError for a time zone that is not known
 */
export function startOfDay(timeZone: string, at: number): number {
	const day = dayIn(timeZone, at);
	// Days have 23 to 25 hours where clocks are changed, and zones lie on quarters of an hour.
	let [before, within] = [at - 26 * HOUR_MS, at];
	while (within - before > 1) {
		const middle = Math.floor((before + within) / 2);
		if (dayIn(timeZone, middle) === day) within = middle;
		else before = middle;
	}
	return within;
}
