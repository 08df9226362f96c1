/** One page view of a real visitor, as the visits' script sends it; parsed at the door. */
import * as v from 'valibot';
import { DEVICE_CLASSES } from './reading';
import { FIELD_METRICS, type FieldMetric } from './histogram';

/** How the visitor came to the page (W3C Navigation Timing 2, and the states of it that web-vitals names). */
export const NAVIGATIONS = [
	'navigate',
	'reload',
	'back-forward',
	'back-forward-cache',
	'prerender',
	'restore',
	'soft-navigation'
] as const;
export type Navigation = (typeof NAVIGATIONS)[number];

/** Most page views that one beacon carries: route changes of one stay. */
export const MOST_VISITS = 20;
export const MOST_NAMES = 20;
const LONGEST_TEXT = 200;

/** Query and fragment may name somebody. */
function withoutQuery(address: string): string {
	return address.replace(/[?#].*$/s, '');
}

const finite = v.pipe(v.number('A figure is a number.'), v.finite('A figure is a number.'));
const text = v.pipe(v.string('This is text.'), v.maxLength(LONGEST_TEXT, `At most ${LONGEST_TEXT} characters.`));
const name = v.pipe(v.string('A name is text.'), v.regex(/^[\w.:-]{1,40}$/, 'A name has up to 40 letters and digits.'));
const parts = v.pipe(v.array(finite), v.maxLength(4, 'At most four parts.'));

/** What a metric came from: its element, the file it waited for, and the parts of its time, ms. */
const Origin = v.object({
	target: text,
	url: v.optional(v.pipe(text, v.transform(withoutQuery))),
	parts: v.optional(parts)
});
export type VisitOrigin = v.InferOutput<typeof Origin>;

export const Visit = v.object({
	/** Random, of this page view alone. */
	id: v.pipe(v.string('The id is text.'), v.regex(/^[\w-]{8,40}$/, 'The id has 8 to 40 letters, digits and -.')),
	/** Which sending of this page view: a later one replaces an earlier one. */
	sending: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(999)),
	/** What follows a path in an address is none of it, and is not kept. */
	path: v.pipe(text, v.startsWith('/', 'A path begins with /.'), v.transform(withoutQuery)),
	navigation: v.picklist(NAVIGATIONS, 'This kind of navigation is not known.'),
	/** Since the page view began, ms. */
	ageMs: finite,
	metrics: v.partial(v.object(Object.fromEntries(FIELD_METRICS.map((id) => [id, finite])) as MetricEntries)),
	origins: v.optional(v.partial(v.object({ lcp: Origin, inp: Origin, cls: Origin })), {}),
	/** Custom User Timing marks (since the page view began) and measures (their length), ms. */
	timings: v.optional(v.record(name, finite), {}),
	/** What the client wants visitors to do, and this one did. */
	goals: v.optional(v.pipe(v.array(name), v.maxLength(MOST_NAMES, `At most ${MOST_NAMES} goals.`)), [])
});
export type Visit = v.InferOutput<typeof Visit>;
type MetricEntries = Record<FieldMetric, typeof finite>;

export const Beacon = v.object({
	key: v.pipe(v.string(), v.maxLength(64)),
	/** Says that the script was handed out lately. */
	token: v.pipe(v.string(), v.maxLength(64)),
	device: v.picklist(DEVICE_CLASSES, 'The device is “phone” or “desktop”.'),
	/** Effective connection type (WICG Network Information); empty where the browser does not say. */
	network: v.pipe(v.string(), v.regex(/^[\w-]{0,10}$/)),
	/** Driven by a program (W3C WebDriver, `navigator.webdriver`). */
	automated: v.boolean(),
	visits: v.pipe(v.array(Visit), v.minLength(1), v.maxLength(MOST_VISITS))
});
export type Beacon = v.InferOutput<typeof Beacon>;

/** Largest values that a browser can honestly report (house): beyond them something else is meant. */
export const MOST_VALUE: Record<FieldMetric, number> = {
	lcp: 120_000,
	inp: 60_000,
	cls: 20,
	fcp: 120_000,
	ttfb: 120_000
};
const MOST_TIMING_MS = 3_600_000;
/** Clocks of a page are rounded, and age is read a moment before it is sent. */
const CLOCK_MS = 1000;
/** A tab can stay open for weeks; what is older is another page view's clock. */
const MOST_AGE_MS = 31 * 86_400_000;

/** Why a page view is shown and not counted. */
export type VisitFault = 'automated' | 'bot';

/** Why page views were not counted: kept as numbers alone. */
export const REFUSALS = [
	'repeated',
	'late',
	'origin',
	'stale',
	'flood',
	'weight',
	'implausible',
	'automated',
	'bot'
] as const;
export type Refusal = (typeof REFUSALS)[number];

/** A part of a path that names one thing or one person: a number, a code, an address. */
const PERSONAL = /^(\d{3,}|[0-9a-f-]{8,}|(?=.*\d)[\w~-]{16,}|.*(@|%40).*)$/i;

/** The path with ids in it folded: `/orders/48213` is `/orders/*`. */
export const withoutIds = (path: string): string =>
	path
		.split('/')
		.map((part) => (PERSONAL.test(part) ? '*' : part))
		.join('/');

/** Values below zero, beyond what a browser reports, or later than the page view is old. */
export function isImplausible({ metrics, timings, ageMs }: Visit): boolean {
	if (ageMs < 0 || ageMs > MOST_AGE_MS) return true;
	if (Object.keys(timings).length > MOST_NAMES) return true;
	const figures = Object.entries(metrics) as [FieldMetric, number][];
	if (figures.some(([id, value]) => value < 0 || value > MOST_VALUE[id])) return true;
	if (figures.some(([id, value]) => id !== 'cls' && value > ageMs + CLOCK_MS)) return true;
	return Object.values(timings).some((ms) => ms < 0 || ms > MOST_TIMING_MS || ms > ageMs + CLOCK_MS);
}

/** Programs that say what they are in their user agent (RFC 9110, section 10.1.5; the words are practice). */
const BOT = /bot\b|crawl|spider|slurp|preview|headless|monitor|fetch|curl|wget|python|java\//i;

export const isBotAgent = (userAgent: string): boolean => userAgent === '' || BOT.test(userAgent);
