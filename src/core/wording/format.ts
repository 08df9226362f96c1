/** Figures as people read them. One rule for each unit, used by every screen, report and export. */
import { metricOf, type Unit } from '../metrics/catalogue';

/** Between a figure and its unit: a line never breaks there. */
const JOIN = '\u00a0';
const MINUS = '\u2212';

/** By hand, not by Intl: its first use takes a phone a fifth of a second, in the middle of a screen's start. */
function fixed(value: number, decimals: 0 | 1 | 2 | 3): string {
	const [whole, fraction] = Math.abs(value).toFixed(decimals).split('.') as [string, string?];
	const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',');
	const text = fraction ? `${grouped}.${fraction}` : grouped;
	return value < 0 && /[1-9]/.test(text) ? MINUS + text : text;
}

/** Milliseconds below 1 s as whole ms, above as seconds with two decimals. */
export function formatDuration(ms: number): string {
	return Math.abs(Math.round(ms)) < 1000 ? `${fixed(ms, 0)}${JOIN}ms` : `${fixed(ms / 1000, 2)}${JOIN}s`;
}

/** Bytes, kB and MB of 1000. */
export function formatBytes(bytes: number): string {
	const size = Math.abs(bytes);
	if (size < 1000) return `${fixed(bytes, 0)}${JOIN}B`;
	if (size < 999_500) return `${fixed(bytes / 1000, size < 99_950 ? 1 : 0)}${JOIN}kB`;
	return `${fixed(bytes / 1_000_000, 2)}${JOIN}MB`;
}

/** A value in a unit. @param finer one more decimal, for differences and ends of intervals */
export function formatIn(unit: Unit, value: number, finer = false): string {
	switch (unit) {
		case 'ms':
			return formatDuration(value);
		case 'bytes':
			return formatBytes(value);
		case 'unitless':
			return fixed(value, 3);
		case 'count':
			return fixed(value, finer && !Number.isInteger(value) ? 1 : 0);
		case 'points':
			return fixed(value, finer ? 1 : 0);
	}
}

/** A value of a metric; a dash for what was not measured. */
export function formatValue(metric: string, value: number | null): string {
	return value === null ? '–' : formatIn(metricOf(metric).unit, value);
}

/** A signed difference of a metric: +420 ms, −0.051, or 0 ms. */
export function formatDifference(metric: string, value: number): string {
	const { unit } = metricOf(metric);
	const text = formatIn(unit, value, true) + (unit === 'points' ? `${JOIN}points` : '');
	const isZero = !/[1-9]/.test(text);
	return value > 0 && !isZero ? `+${text}` : text;
}

/** A length of time in words for people who wait: "about 4 minutes". */
export function formatWait(ms: number): string {
	if (ms < 45_000) return 'less than a minute';
	const minutes = Math.round(ms / 60_000);
	if (minutes < 90) return minutes === 1 ? 'about a minute' : `about ${minutes} minutes`;
	return `about ${(minutes / 60).toFixed(1)} hours`;
}

const HOUR_MS = 3_600_000;

/** How long after something: "50 minutes", "6 hours", "7 days". */
export function formatAge(ms: number): string {
	const [size, unit] =
		ms < HOUR_MS * 0.95 ? [60_000, 'minute'] : ms < HOUR_MS * 47 ? [HOUR_MS, 'hour'] : [24 * HOUR_MS, 'day'];
	const count = Math.max(1, Math.round(ms / size));
	return `${count} ${unit}${count === 1 ? '' : 's'}`;
}

const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/** A moment in full, local to the reader: "24 November 2026, 14:05". @param iso UTC ISO text */
export function formatMoment(iso: string): string {
	const moment = new Date(iso);
	const clock = [moment.getHours(), moment.getMinutes()].map((part) => String(part).padStart(2, '0')).join(':');
	return `${moment.getDate()} ${MONTHS[moment.getMonth()]} ${moment.getFullYear()}, ${clock}`;
}

/** A day in full: "24 November 2026". @param day as 2026-11-24, whatever the reader's clock */
export function formatDay(day: string): string {
	const [year, month, date] = day.split('-').map(Number);
	return `${date} ${MONTHS[month! - 1]} ${year}`;
}

/** "1 round", "3 rounds". @param many where it is not the one with an "s" */
export const counted = (n: number, name: string, many = `${name}s`): string =>
	`${fixed(n, 0)} ${n === 1 ? name : many}`;
