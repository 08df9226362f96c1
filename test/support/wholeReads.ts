/** Which statements read a large table whole (SQLite, EXPLAIN QUERY PLAN). */
import type { Db } from '../../src/lib/server/base/db/connection';

/** Tables that grow with every load, page or day. */
const LARGE = [
	'artifact_use',
	'derived',
	'field_reading',
	'host_seen',
	'job',
	'load',
	'page',
	'reading_figure',
	'reading_place',
	'trial_place'
];

/** Those that neither of the tests minds: the beginning of the statement, and why. */
const ALLOWED: Record<string, string> = {
	'load: SELECT avg(lab_ms)': 'from the newest back, so many and no more',
	'load: SELECT started_at AS at, machine_speed': 'from the newest back, so many and no more'
};

/** @param allowed as above, beside what is always allowed @returns table and statement of each whole read */
export function wholeReads(db: Db, texts: readonly string[], allowed: Record<string, string> = {}): string[] {
	const starts = Object.keys({ ...ALLOWED, ...allowed });
	const found = texts.flatMap((text) => scansOf(db, text));
	return found.filter((line) => !starts.some((start) => line.startsWith(start)));
}

function scansOf(db: Db, text: string): string[] {
	const parameters = Object.fromEntries([...text.matchAll(/[@:$](\w+)/g)].map(([, name]) => [name!, null]));
	const places = text.match(/\?/g)?.map(() => null) ?? [];
	const plan = db.prepare(`EXPLAIN QUERY PLAN ${text}`).all(...(places.length ? places : [parameters])) as {
		detail: string;
	}[];
	const scans = plan.flatMap(({ detail }) => /^SCAN (\w+)/.exec(detail)?.[1] ?? []);
	return scans.filter((table) => LARGE.includes(table)).map((table) => `${table}: ${text.replace(/\s+/g, ' ').trim()}`);
}
