/**
 * The visits of the last days as Zafra's script would have reported them: drawn from the population with a seed, so
 * that their truth is known. Written once, before the demonstration starts.
 */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { gzipSync } from 'node:zlib';
import { writtenDay } from '../calendar';
import { pathsOf, visitsOn, vitalOn, type Device, type Vital } from './population';

/** What one page view reported; written as a line of JSON. */
export interface DrawnVisit {
	host: string;
	/** ms since 1970. */
	at: number;
	path: string;
	device: Device;
	metrics: Partial<Record<Vital, number>>;
	timings: Record<string, number>;
	goals: string[];
}

/** A quarter of a year, and four weeks more: the first release has four weeks before it, too. */
const DAYS = 118;
/** Share of page views that the site's script reports. */
const SAMPLING = 0.15;
const HOST = 'skerry-line.test';
const DAY_MS = 86_400_000;
const DEVICES: readonly Device[] = ['phone', 'desktop'];
const VITALS: readonly Vital[] = ['ttfb', 'fcp', 'lcp', 'cls'];
/** Shares of the visitors who touch a page, by device. */
const TOUCH: Record<Device, number> = { phone: 0.8, desktop: 0.7 };
/** Who is served at once books in 9 of 100 views of the booking page; each second of waiting takes a fifth of them. */
const BOOKS = 0.09;
const LEAVES_PER_SECOND = 0.2;
/** Hours of the day from midnight: ferries are looked up in the evening. */
const HOURS = [1, 1, 1, 1, 1, 2, 4, 6, 7, 7, 7, 7, 8, 7, 6, 6, 7, 8, 10, 12, 12, 9, 5, 2];

type Random = () => number;

function randomOf(words: string): Random {
	let state = createHash('sha1').update(words).digest().readUInt32BE(0);
	// mulberry32 (from memory): enough for visits that are made up.
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}

const normalOf = (random: Random) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

function hourOf(random: Random): number {
	let rest = random() * HOURS.reduce((sum, value) => sum + value, 0);
	return HOURS.findIndex((weight) => (rest -= weight) < 0);
}

interface Drawing {
	device: Device;
	/** As it is on the calendar. */
	day: string;
	/** As the world has it written down. */
	written: string;
	until: number;
}

/** The visits of one page on one day. */
function* visitsOfDay(path: string, { device, day, written, until }: Drawing): Generator<DrawnVisit> {
	const random = randomOf(`${path} ${device} ${written}`);
	const expected = visitsOn(HOST, path, device, written) * SAMPLING;
	// Poisson, by its normal approximation; of a page with few visits by chance alone.
	const count = Math.max(0, Math.round(expected + Math.sqrt(expected) * normalOf(random)));
	for (let i = 0; i < count; i++) {
		const at = Date.parse(`${day}T00:00:00Z`) + (hourOf(random) + random()) * 3_600_000;
		const visit = drawVisit(path, { device, day: written, at: Math.round(at), random });
		if (at < until) yield visit;
	}
}

function drawVisit(
	path: string,
	{ device, day, at, random }: { device: Device; day: string; at: number; random: Random }
): DrawnVisit {
	const draw = (vital: Vital) => {
		const [middle, spread] = vitalOn(HOST, { path, device, vital, day });
		return middle * Math.exp(spread * normalOf(random));
	};
	const metrics: DrawnVisit['metrics'] = {};
	for (const vital of VITALS)
		metrics[vital] = vital === 'cls' ? Math.round(draw(vital) * 1e4) / 1e4 : Math.round(draw(vital) * 10) / 10;
	if (random() < TOUCH[device]) metrics.inp = 8 * Math.round(draw('inp') / 8);
	const books = path === '/booking' && random() < BOOKS * (1 - LEAVES_PER_SECOND) ** (metrics.lcp! / 1000);
	const readyMs = metrics.lcp! * (1.1 + 0.3 * random());
	return {
		host: HOST,
		at,
		path,
		device,
		metrics,
		timings: path === '/timetable' ? { 'timetable-ready': Math.round(readyMs) } : {},
		goals: books ? ['booked'] : []
	};
}

/** @param weeks by which the world is moved */
export function* drawHistory(now: number, weeks = 0): Generator<DrawnVisit> {
	const today = Math.floor(now / DAY_MS);
	for (let day = today - DAYS; day <= today; day++) {
		const text = new Date(day * DAY_MS).toISOString().slice(0, 10);
		const written = writtenDay(text, weeks);
		for (const path of pathsOf(HOST))
			for (const device of DEVICES) yield* visitsOfDay(path, { device, day: text, written, until: now });
	}
}

/** Unless the file is there. */
export function writeHistory(file: string, weeks: number, now = Date.now()): void {
	if (existsSync(file)) return;
	const lines: string[] = [];
	for (const visit of drawHistory(now, weeks)) lines.push(JSON.stringify(visit));
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(`${file}.part`, gzipSync(lines.join('\n'), { level: 1 }));
	renameSync(`${file}.part`, file);
}
