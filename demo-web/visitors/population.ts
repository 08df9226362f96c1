/**
 * The visitors of the simulated web: how many come to a page on a day, and what they have there. All follows from the
 * page, the device and the day, so that the truth of every window is known; single visits are drawn from it.
 */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Papa from 'papaparse';

const TRAFFIC = fileURLToPath(new URL('../../demo/traffic', import.meta.url));

export type Device = 'phone' | 'desktop';
export type Vital = 'lcp' | 'inp' | 'cls' | 'fcp' | 'ttfb';

/** Of all visits, those on phones (house numbers of the world). */
const PHONES = 0.68;
/** Weekdays from Sunday: ferries are looked up at the weekend. */
const WEEKDAYS = [1.25, 0.85, 0.85, 0.9, 0.95, 1.05, 1.15];

/** Middle and spread (log scale) of what visitors have on a plain page. */
const PLAIN: Record<Device, Record<Vital, [middle: number, spread: number]>> = {
	phone: { ttfb: [620, 0.5], fcp: [1450, 0.42], lcp: [2080, 0.42], inp: [135, 0.7], cls: [0.035, 1.1] },
	desktop: { ttfb: [360, 0.5], fcp: [820, 0.4], lcp: [1240, 0.42], inp: [58, 0.7], cls: [0.021, 1.1] }
};

/** Pages that are heavier or lighter than a plain one: factors by metric. */
const PAGES: Record<string, Partial<Record<Vital, number>>> = {
	'skerry-line.test/': { lcp: 1.28, cls: 1.6 },
	'skerry-line.test/timetable': { lcp: 0.9, inp: 1.35 },
	'skerry-line.test/booking': { lcp: 0.82, inp: 1.7 },
	'skerry-line.test/contact': { lcp: 0.7 },
	'pellows-seed-house.test/': { lcp: 1.4, ttfb: 1.5, cls: 2.2 },
	'pellows-seed-house.test/seed': { lcp: 1.5, ttfb: 1.4 },
	'orrery-hall.test/': { lcp: 0.75, inp: 0.7 }
};

export interface Release {
	host: string;
	/** Every page, or those whose path begins so. */
	path: string;
	day: string;
	words: string;
	/** Factors by metric from that day on. */
	effect: Partial<Record<Vital, number>>;
}

/** What happened, and what it did: the truth that estimates are held to. */
export const RELEASES: readonly Release[] = [
	{
		host: 'skerry-line.test',
		path: '/',
		day: '2026-09-14',
		words: 'Pictures of the home page made lighter',
		effect: { lcp: 0.86 }
	},
	{
		host: 'skerry-line.test',
		path: '/timetable',
		day: '2026-10-19',
		words: 'The timetable filters as one types',
		effect: { inp: 1.3 }
	}
];

/** Every day has luck of its own: of all visitors alike (weather, networks), and of each page (log scale). */
const SHARED_LUCK = 0.02;
const PAGE_LUCK = 0.015;

/** A standard normal number that follows from the words alone. */
function luckOf(words: string): number {
	const bytes = createHash('sha1').update(words).digest();
	const uniform = (at: number) => (bytes.readUInt32BE(at) + 0.5) / 2 ** 32;
	return Math.sqrt(-2 * Math.log(uniform(0))) * Math.cos(2 * Math.PI * uniform(4));
}

/** In autumn networks are slower on the islands: a drift without a cause, of all sites alike. */
function seasonOf(day: string): number {
	const dayOfYear = (Date.parse(day) - Date.parse(`${day.slice(0, 4)}-01-01`)) / 86_400_000;
	return 1 + 0.04 * Math.sin(((dayOfYear - 200) / 365) * 2 * Math.PI);
}

/** A month of visits by path, from the site's own export. */
function monthlyVisits(host: string): Map<string, number> {
	const file = join(TRAFFIC, `${host}.csv`);
	if (!existsSync(file)) return new Map();
	const bytes = readFileSync(file);
	const text = bytes[0] === 0xff ? bytes.toString('utf16le') : bytes.toString('latin1');
	const visits = new Map<string, number>();
	const [, ...rows] = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: true }).data;
	for (const [address = '', count = ''] of rows) {
		const found = /^(?:https?:\/\/[^/]+)?(\/[^?]*)/.exec(address)?.[1];
		if (!found) continue;
		const path = found.length > 1 ? found.replace(/\/$/, '') : found;
		visits.set(path, (visits.get(path) ?? 0) + Number(count.replace(/[.,]/g, '')));
	}
	return visits;
}

const sharesByHost = new Map<string, Map<string, number>>();
function visitsOf(host: string): Map<string, number> {
	const visits = sharesByHost.get(host) ?? monthlyVisits(host);
	sharesByHost.set(host, visits);
	return visits;
}

export const pathsOf = (host: string): string[] => [...visitsOf(host).keys()];

/** Visits to a page on a day on a device; 0 for a page that nobody knows. */
export function visitsOn(host: string, path: string, device: Device, day: string): number {
	const monthly = visitsOf(host).get(path) ?? 0;
	const share = device === 'phone' ? PHONES : 1 - PHONES;
	return (monthly / 30.4) * share * WEEKDAYS[new Date(`${day}T12:00:00Z`).getUTCDay()]!;
}

/** Middle and log spread of a vital of a page on a day. */
export function vitalOn(
	host: string,
	{ path, device, vital, day }: { path: string; device: Device; vital: Vital; day: string }
): [middle: number, spread: number] {
	const [middle, spread] = PLAIN[device][vital];
	const page = PAGES[`${host}${path}`]?.[vital] ?? 1;
	const released = RELEASES.filter(
		(release) => release.host === host && day >= release.day && isOfRelease(release.path, path)
	);
	const effect = released.reduce((product, { effect: factors }) => product * (factors[vital] ?? 1), 1);
	const season = vital === 'cls' || vital === 'inp' ? 1 : seasonOf(day);
	const luck = SHARED_LUCK * luckOf(`${vital} ${day}`) + PAGE_LUCK * luckOf(`${vital} ${day} ${host}${path}`);
	return [middle * page * effect * season * Math.exp(luck), spread];
}

const isOfRelease = (url: string, path: string) => (url === '/' ? path === '/' : path.startsWith(url));
