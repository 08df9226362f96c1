/** What the agency keeps of a client: the same schema for forms, API and archives. */
import * as v from 'valibot';
import { isMetricId, type MetricId } from '../metrics/catalogue';
import { MustSendList } from '../trial/design/mustSend';
import { Colour } from './colour';

/** ISO 4217 codes of the currencies that are offered. */
export const CURRENCIES = [
	'EUR',
	'GBP',
	'USD',
	'CHF',
	'SEK',
	'NOK',
	'DKK',
	'PLN',
	'MXN',
	'ARS',
	'COP',
	'CLP',
	'CAD',
	'AUD',
	'NZD'
] as const;
export type Currency = (typeof CURRENCIES)[number];
export const LANGUAGES = ['en', 'es'] as const;

const text = (name: string, most: number) =>
	v.pipe(v.string(`${name} is text.`), v.trim(), v.maxLength(most, `${name} has at most ${most} characters.`));
const positive = (name: string) =>
	v.pipe(v.number(`${name} is a number.`), v.finite(`${name} is a number.`), v.minValue(0, `${name} is not negative.`));
const metricId = v.custom<MetricId>((id) => typeof id === 'string' && isMetricId(id), 'There is no such metric.');

const person = v.object({
	name: v.pipe(text('The name', 120), v.nonEmpty('Give the person a name.')),
	role: v.optional(text('The role', 120), ''),
	email: v.optional(
		v.union(
			[v.literal(''), v.pipe(text('The address', 200), v.email('This is not an e-mail address.'))],
			'This is not an e-mail address.'
		),
		''
	)
});

/** A level that is good enough for this client. */
const target = v.object({
	metric: metricId,
	/** Under these conditions; null for all. */
	conditions: v.optional(v.nullable(text('The conditions', 60)), null),
	/** In the metric's unit. */
	value: positive('A target')
});

export const ClientInput = v.object(
	{
		name: v.pipe(text('The name', 120), v.nonEmpty('Give the client a name.')),
		note: v.optional(text('The note', 2000), ''),
		language: v.optional(v.picklist(LANGUAGES, 'The language is “en” or “es”.'), 'en'),
		currency: v.optional(v.picklist(CURRENCIES, `The currency is one of ${CURRENCIES.join(', ')}.`), 'EUR'),
		people: v.optional(v.pipe(v.array(person), v.maxLength(50, 'At most 50 people.')), []),
		/** How reports call the client, and their accent. */
		reportName: v.optional(text('The name in reports', 120), ''),
		reportColour: v.optional(v.union([v.literal(''), Colour], 'Write a colour as #1F6F54.'), ''),
		targets: v.optional(v.pipe(v.array(target), v.maxLength(100, 'At most 100 targets.')), []),
		/** Smallest shifts that matter to this client, where they differ from the house's. */
		margins: v.optional(
			v.record(metricId, v.object({ absolute: positive('A margin'), relative: positive('A margin') })),
			{}
		),
		/** Keys of the conditions that its trials usually have; those that ship where there are none. */
		conditions: v.optional(v.pipe(v.array(text('A key of conditions', 60)), v.maxLength(20)), []),
		mustSend: v.optional(MustSendList, []),
		/** Share by which its visits grow from month to month, 0.02 for 2 %. */
		growth: v.optional(
			v.pipe(
				v.number('Growth is a number.'),
				v.minValue(-0.5, 'Growth is at least −50 % a month.'),
				v.maxValue(1, 'Growth is at most 100 % a month.')
			),
			0
		),
		/** What an hour of set-up costs it. */
		hourly: v.optional(positive('The price of an hour'), 0)
	},
	'Send an object that describes the client.'
);
export type ClientInput = v.InferOutput<typeof ClientInput>;
export type Target = ClientInput['targets'][number];
export type Person = ClientInput['people'][number];

/** A client about whom nothing but the name is known. */
export const newClient = (name: string): ClientInput => v.parse(ClientInput, { name });
