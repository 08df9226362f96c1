/** The door for a watch and for a standing: the same schema for the form and for the API. */
import * as v from 'valibot';
import { NamedElements, type NamedElement } from '../load/journey/namedElement';
import { allSelectors } from '../load/journey/selector';
import { WebAddress } from '../load/requests/addressInput';
import { DEFAULT_PRIMARY, isMetricId, type MetricId } from '../metrics/catalogue';
import { Schedule } from './schedule';

const MOST_WATCHED = 200;
const MOST_TARGETS = 10;
const LEAST_LOADS = 3;
const MOST_LOADS = 20;
const MOST_RIVALS = 8;

const wholeId = v.pipe(v.number('Name pages by their numbers.'), v.safeInteger('Name pages by their numbers.'));
const metricId = v.custom<MetricId>((id) => typeof id === 'string' && isMetricId(id), 'There is no such metric.');

const Notices = v.object({
	mail: v.optional(
		v.pipe(
			v.array(v.pipe(v.string(), v.trim(), v.email('This is no mail address.'))),
			v.maxLength(MOST_TARGETS, 'At most ten addresses.')
		),
		[]
	),
	/** Where each notice is posted to, signed. */
	hook: v.optional(v.nullable(WebAddress), null)
});

const shared = {
	clientId: v.pipe(v.number('Name the client by its number.'), v.safeInteger('Name the client by its number.')),
	name: v.pipe(
		v.string('Give it a name.'),
		v.trim(),
		v.nonEmpty('Give it a name.'),
		v.maxLength(120, 'A name has at most 120 characters.')
	),
	conditions: v.optional(
		v.pipe(
			v.array(v.string()),
			v.minLength(1, 'Choose conditions.'),
			v.maxLength(4, 'At most four kinds of conditions.')
		),
		['phone', 'desktop']
	),
	schedule: v.optional(Schedule, { every: 'week', pattern: '', timeZone: 'UTC' }),
	loads: v.optional(
		v.pipe(
			v.number('Give a number of loads.'),
			v.integer('Give a whole number of loads.'),
			v.minValue(LEAST_LOADS, 'A reading needs at least 3 loads of each page.'),
			v.maxValue(MOST_LOADS, 'A reading has at most 20 loads of each page.')
		),
		5
	),
	metrics: v.optional(
		v.pipe(v.array(metricId), v.minLength(1, 'Choose a metric.'), v.maxLength(8, 'At most eight metrics.')),
		[...DEFAULT_PRIMARY]
	),
	notices: v.optional(Notices, { mail: [], hook: null }),
	/** Visitor states of the sites, by their numbers: each is had before loads of its site's pages. */
	states: v.optional(v.pipe(v.array(wholeId), v.maxLength(MOST_RIVALS, 'At most eight visitor states.')), [])
};

const pages = v.pipe(
	v.array(wholeId),
	v.minLength(1, 'Choose at least one page.'),
	v.maxLength(MOST_WATCHED, 'At most 200 pages.')
);

export const WatchInput = v.object({
	...shared,
	pages,
	/** Address of a page at the same place that nobody changes; null for the one that ships with Zafra. */
	control: v.optional(v.nullable(WebAddress), null)
});
export type WatchInput = v.InferOutput<typeof WatchInput>;

export const StandingInput = v.object({
	...shared,
	/** Own page first, then competitors'. */
	pages: v.pipe(
		v.array(wholeId),
		v.minLength(2, 'Choose your page and at least one of a competitor.'),
		v.maxLength(MOST_RIVALS, 'At most eight pages.')
	),
	loads: v.optional(
		v.pipe(
			v.number('Give a number of rounds.'),
			v.integer('Give a whole number of rounds.'),
			v.minValue(8, 'Ranks need at least 8 rounds.'),
			v.maxValue(MOST_LOADS, 'At most 20 rounds.')
		),
		10
	),
	/** Elements of which each load tells when they are first seen: they are ranked as the pages’ own marks are. */
	shown: v.optional(
		v.pipe(
			NamedElements,
			allSelectors((elements) => elements.map(({ selector }) => selector))
		),
		[]
	)
});
export type StandingInput = v.InferOutput<typeof StandingInput>;

/** What a watch or a standing keeps of it. */
export interface WatchSettings {
	conditions: string[];
	schedule: Schedule;
	loads: number;
	metrics: MetricId[];
	notices: v.InferOutput<typeof Notices>;
	/** Of a standing; none in those from before it existed. */
	shown?: NamedElement[];
	/** Visitor states by their numbers; none in those from before it existed. */
	states?: number[];
}

/** The door for settings that come from another Zafra. */
export const StoredWatch = v.object({
	conditions: shared.conditions,
	schedule: shared.schedule,
	loads: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(MOST_LOADS)),
	metrics: shared.metrics,
	notices: shared.notices,
	shown: v.optional(NamedElements),
	states: v.optional(v.array(wholeId))
});
