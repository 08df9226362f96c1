/** What a site's visits' script reports, and to whom. */
import * as v from 'valibot';
import { FIELD_METRICS } from './histogram';
import { isTimeZone } from './localDay';
import { MOST_NAMES } from './visit';

const name = v.pipe(
	v.string('A name is text.'),
	v.trim(),
	v.regex(/^[\w.:-]{1,40}$/, 'A name has up to 40 letters, digits and . : - _, as in the page’s own code.')
);
const ms = v.pipe(v.number('Write a number of ms.'), v.minValue(0, 'A time is not negative.'), v.maxValue(3_600_000));

/** A User Timing mark or measure of the page's own, as a metric (W3C User Timing). */
export const CustomTiming = v.pipe(
	v.object({
		name,
		/** At or below this it is good, above the other poor, ms. */
		good: ms,
		poor: ms,
		/** Smallest change that matters, ms. */
		margin: v.optional(ms, 100)
	}),
	v.check(({ good, poor }) => good < poor, 'Good must be below poor.')
);
export type CustomTiming = v.InferOutput<typeof CustomTiming>;

/** A path of names from the page's global object: "stilewatch.note". */
const call = v.pipe(
	v.string(),
	v.trim(),
	v.regex(/^[A-Za-z_$][\w$]*(\.[A-Za-z_$][\w$]*){0,4}$/, 'Write the function as the page calls it: counter.note.')
);

/**
 * Events for the page's own analytics: a function of the page is called with one object a metric, whose fields have the
 * names that the analytics knows. Values are whole numbers (layout shift times 1,000), marked as no interaction.
 */
export const HandOver = v.object({
	call,
	nameField: name,
	valueField: name,
	/** Set to true on each event, so that a visit with nothing else still counts as one without interaction. */
	quietField: name,
	events: v.partial(v.object(Object.fromEntries(FIELD_METRICS.map((id) => [id, name])) as Record<string, typeof name>))
});
export type HandOver = v.InferOutput<typeof HandOver>;

const list = <Item extends v.GenericSchema>(item: Item) =>
	v.pipe(v.array(item), v.maxLength(MOST_NAMES, `At most ${MOST_NAMES}.`));

/** Longest time for which single page views are kept, days; histograms stay. */
export const RAW_DAYS = 7;

export const VisitSettings = v.object({
	/** Share of page views that report, 0 to 1. */
	sampling: v.optional(
		v.pipe(v.number('Write a share.'), v.minValue(0.001, 'At least 0.1 %.'), v.maxValue(1, 'At most 100 %.')),
		1
	),
	timings: v.optional(list(CustomTiming), []),
	goals: v.optional(list(name), []),
	/** Of the site's own clock: its days begin at midnight there. */
	timeZone: v.optional(
		v.pipe(v.string(), v.check(isTimeZone, 'This time zone is not known. Write it as Europe/London.')),
		'UTC'
	),
	handOver: v.optional(v.nullable(HandOver), null),
	/** Days for which histograms are kept; null for ever. */
	keepDays: v.optional(
		v.nullable(v.pipe(v.number('Write a number of days.'), v.integer(), v.minValue(28, 'A window has 28 days.'))),
		null
	)
});
export type VisitSettings = v.InferOutput<typeof VisitSettings>;

export const USUAL_VISIT_SETTINGS: VisitSettings = v.parse(VisitSettings, {});
