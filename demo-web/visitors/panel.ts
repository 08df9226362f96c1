/**
 * field-panel.test: a panel of real visits, as an outside service hands it out. Asked for a page or a whole origin, a
 * device class and the last day of a window of 28 days; too few visits are no answer.
 */
import type { Answer, Ask } from '../world';
import { writtenDay } from '../calendar';
import { pathsOf, visitsOn, vitalOn, type Device, type Vital } from './population';

const VITALS: readonly Vital[] = ['lcp', 'inp', 'cls', 'fcp', 'ttfb'];
const DAY_MS = 86_400_000;
const WINDOW_DAYS = 28;
/** Visits in a window below which the panel says nothing. */
const LEAST_VISITS = 1000;
const KEY = 'demo';
const MOST_A_MINUTE = 150;
/** Edges of its bins: a quarter more each. */
const EDGES: Record<'time' | 'shift', number[]> = { time: edges(20, 40_000, 1.06), shift: edges(0.001, 4, 1.09) };

function edges(from: number, to: number, factor: number): number[] {
	const all = [0];
	for (let edge = from; edge < to; edge *= factor) all.push(Number(edge.toPrecision(5)));
	return all;
}

/** Times at which it was asked within the last minute. */
const requestTimes: number[] = [];

const json = (status: number, value: unknown, headers: Record<string, string> = {}): Answer => ({
	status,
	type: 'application/json',
	body: JSON.stringify(value),
	headers: { 'cache-control': 'no-store', ...headers },
	waitMs: 15
});

const refuse = (status: number, code: string, words: string, headers = {}) =>
	json(status, { error: { code, words } }, headers);

/** @param weeks by which the world is moved */
export function answerPanel({ path, query }: Ask, weeks = 0): Answer | null {
	if (path !== '/readings') return null;
	const now = Date.now();
	while (requestTimes.length && requestTimes[0]! < now - 60_000) requestTimes.shift();
	if (requestTimes.length >= MOST_A_MINUTE)
		return refuse(429, 'rate', 'At most 150 readings a minute.', { 'retry-after': '20' });
	requestTimes.push(now);
	if (query.get('key') !== KEY) return refuse(403, 'key', 'This key is not known.');
	const device = query.get('device');
	const until = query.get('until') ?? '';
	if (device !== 'phone' && device !== 'desktop') return refuse(400, 'device', 'The device is phone or desktop.');
	if (!/^\d{4}-\d\d-\d\d$/.test(until)) return refuse(400, 'until', 'Name the last day of the window.');
	return readingOf(query, device, until, weeks);
}

function readingOf(query: URLSearchParams, device: Device, until: string, weeks: number): Answer {
	const page = query.get('page');
	const origin = page === null ? query.get('origin') : null;
	const address = page ?? origin ?? '';
	if (!URL.canParse(address)) return refuse(400, 'page', 'Name a page or an origin.');
	const { host, pathname, origin: own } = new URL(address);
	const paths = page === null ? pathsOf(host) : [pathname.length > 1 ? pathname.replace(/\/$/, '') : pathname];
	const days = Array.from({ length: WINDOW_DAYS }, (_, i) => dayBefore(until, WINDOW_DAYS - 1 - i));
	const written = days.map((day) => writtenDay(day, weeks));
	const parts = paths.flatMap((path) =>
		written.map((day) => ({ path, day, visits: visitsOn(host, path, device, day) }))
	);
	const total = parts.reduce((sum, { visits }) => sum + visits, 0);
	if (total < LEAST_VISITS) return refuse(404, 'too-few-visits', 'Too few visits in this window.');
	const metrics = Object.fromEntries(VITALS.map((vital) => [vital, metricOf(vital, { host, device, parts, total })]));
	const about = page === null ? { origin: own } : { page: `${own}${paths[0]}` };
	return json(200, { ...about, device, window: { from: days[0], until }, metrics });
}

interface Part {
	path: string;
	day: string;
	visits: number;
}

/** Shares of all days and pages together, by the distribution of each: exact, nothing is drawn. */
function metricOf(
	vital: Vital,
	{ host, device, parts, total }: { host: string; device: Device; parts: readonly Part[]; total: number }
) {
	const bounds = EDGES[vital === 'cls' ? 'shift' : 'time'];
	const below = (value: number) => mixtureBelow(value, { vital, host, device, parts, total });
	const cumulated = bounds.map(below);
	const bins = bounds.map((from, i) => ({
		from,
		share: Number(((cumulated[i + 1] ?? 1) - cumulated[i]!).toFixed(6))
	}));
	return { p75: p75Of(below, vital), bins: bins.filter(({ share }) => share > 0) };
}

function mixtureBelow(
	value: number,
	{
		vital,
		host,
		device,
		parts,
		total
	}: { vital: Vital; host: string; device: Device; parts: readonly Part[]; total: number }
): number {
	if (value <= 0) return 0;
	let sum = 0;
	for (const { path, day, visits } of parts) {
		if (visits === 0) continue;
		const [middle, spread] = vitalOn(host, { path, device, vital, day });
		sum += visits * normalBelow(Math.log(value / middle) / spread);
	}
	return sum / total;
}

/** By halving: the mixture has no closed form. */
function p75Of(below: (value: number) => number, vital: Vital): number {
	let [low, high] = vital === 'cls' ? [0, 10] : [0, 100_000];
	for (let i = 0; i < 60; i++) {
		const middle = (low + high) / 2;
		if (below(middle) < 0.75) low = middle;
		else high = middle;
	}
	return vital === 'cls' ? Number(high.toFixed(4)) : Math.round(high);
}

/** Standard normal distribution (Abramowitz and Stegun 7.1.26, error below 1.5e-7). */
function normalBelow(z: number): number {
	const x = Math.abs(z) / Math.SQRT2;
	const t = 1 / (1 + 0.3275911 * x);
	const tail =
		((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
	return z >= 0 ? 1 - tail / 2 : tail / 2;
}

function dayBefore(day: string, days: number): string {
	return new Date(Date.parse(`${day}T00:00:00Z`) - days * DAY_MS).toISOString().slice(0, 10);
}
