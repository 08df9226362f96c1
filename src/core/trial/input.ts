/** The door for a new trial: the same schema for the form and for the API. */
import * as v from 'valibot';
import { isWebAddress } from '../load/address';
import { Steps } from '../load/steps';
import { DEFAULT_PRIMARY, isMetricId, type MetricId } from '../metrics/catalogue';
import { Setup } from './setup';
import type { TrialArm } from './types';

export const MOST_ROUNDS_ASKED = 100;
export const MOST_ARMS = 8;
/** Ten pages, before and after. */
export const MOST_SWEEP_ARMS = 20;

const address = v.pipe(
	v.string('Give an address.'),
	v.trim(),
	v.nonEmpty('Give an address.'),
	v.maxLength(2000, 'An address has at most 2,000 characters.'),
	v.check(
		isWebAddress,
		'This is not a web address. Write it in full, with http:// or https://, without a user name or password: these belong into the conditions.'
	)
);

const positive = v.pipe(
	v.number('Give a number.'),
	v.finite('Give a number.'),
	v.minValue(0, 'Give a number from 0 on.')
);
const metricId = v.custom<MetricId>((id) => typeof id === 'string' && isMetricId(id), 'There is no such metric.');

function wholeNumber(name: string, least: number, most: number) {
	const words = `${name} must be a whole number from ${least} to ${most}.`;
	return v.pipe(v.number(words), v.integer(words), v.minValue(least, words), v.maxValue(most, words));
}

const arm = v.object({
	name: v.pipe(
		v.string('Give the arm a name.'),
		v.trim(),
		v.nonEmpty('Give the arm a name.'),
		v.maxLength(80, 'A name has at most 80 characters.')
	),
	url: address,
	baseline: v.optional(v.boolean('“baseline” is true or false.'), false),
	/** Sweeps: which page this is a version of. */
	page: v.optional(
		v.nullable(v.pipe(v.string(), v.trim(), v.maxLength(80, 'A page name has at most 80 characters.'))),
		null
	),
	setup: v.optional(v.nullable(Setup), null)
});

export const NewTrialInput = v.pipe(
	v.object(
		{
			question: v.pipe(
				v.string('Write the question that the trial shall answer.'),
				v.trim(),
				v.nonEmpty('Write the question that the trial shall answer.'),
				v.maxLength(300, 'A question has at most 300 characters.')
			),
			kind: v.picklist(
				['side-by-side', 'before-after', 'same-page', 'sweep'],
				'The kind is “side-by-side”, “before-after”, “same-page” or “sweep”.'
			),
			arms: v.pipe(
				v.array(arm, 'Give a list of arms.'),
				v.minLength(1, 'Give at least one arm.'),
				v.maxLength(MOST_SWEEP_ARMS, `A trial has at most ${MOST_SWEEP_ARMS} arms.`)
			),
			conditions: v.pipe(
				v.array(v.string('Conditions are named by their key.'), 'Give a list of conditions.'),
				v.minLength(1, 'Choose at least one device.'),
				v.check((ids) => new Set(ids).size === ids.length, 'The same conditions are named twice.')
			),
			rounds: wholeNumber('Rounds', 1, MOST_ROUNDS_ASKED),
			warmups: wholeNumber('Warm-ups', 0, 10),
			seed: v.optional(wholeNumber('The seed', 0, 0xffffffff)),
			primary: v.optional(
				v.pipe(v.array(metricId, 'Give a list of metrics.'), v.minLength(1, 'Choose at least one metric to decide on.'))
			),
			referenceUrl: v.optional(address),
			adaptive: v.optional(v.boolean('“adaptive” is true or false.'), false),
			settleWithinS: v.optional(v.nullable(wholeNumber('The longest wait for a stable page', 5, 1800)), null),
			steps: v.optional(Steps, []),
			intended: v.optional(v.array(v.pipe(v.string(), v.maxLength(40))), []),
			notBefore: v.optional(
				v.nullable(
					v.pipe(
						v.string(),
						v.check(isPlausibleTime, 'This is not a time. Write it as 2026-11-25T22:00, in this century.')
					)
				),
				null
			),
			spreadMinutes: v.optional(v.nullable(wholeNumber('The time to spread over', 1, 10_080)), null),
			margins: v.optional(v.record(metricId, v.object({ absolute: positive, relative: positive }))),
			targets: v.optional(v.record(metricId, positive)),
			repeatOf: v.optional(
				v.nullable(
					v.pipe(v.number('The trial to repeat is a number.'), v.safeInteger('The trial to repeat is a whole number.'))
				),
				null
			),
			clientId: v.optional(
				v.nullable(v.pipe(v.number('The client is a number.'), v.safeInteger('The client is a whole number.'))),
				null
			)
		},
		'Send a JSON object that describes the trial.'
	),
	v.forward(
		v.check(({ kind, arms }) => kind === 'same-page' || arms.length >= 2, 'A trial compares at least two arms.'),
		['arms']
	),
	v.forward(
		v.check(
			({ kind, arms }) => kind === 'sweep' || arms.length <= MOST_ARMS,
			`A trial compares at most ${MOST_ARMS} arms.`
		),
		['arms']
	),
	v.forward(
		v.check(
			({ kind, arms }) => kind !== 'same-page' || arms.length <= 2,
			'The same page is loaded twice: give its address once.'
		),
		['arms']
	),
	v.forward(
		v.check(
			({ kind, arms }) => kind !== 'same-page' || new Set(arms.map((one) => one.url)).size === 1,
			'Both looks are at the same page: give one address.'
		),
		['arms']
	),
	v.forward(
		v.check(
			({ kind, arms }) => kind === 'sweep' || arms.filter((one) => one.baseline).length <= 1,
			'Only one arm can be the baseline.'
		),
		['arms']
	),
	v.forward(
		v.check(
			({ kind, arms }) => kind !== 'sweep' || pagesOf(arms).every(({ own }) => own.length === 2),
			'Each page of a sweep has two arms with the same “page”: without and with one change.'
		),
		['arms']
	),
	v.forward(
		v.check(
			({ kind, arms }) =>
				kind !== 'sweep' || pagesOf(arms).every(({ own }) => own.filter((one) => one.baseline).length <= 1),
			'Each page of a sweep has one baseline.'
		),
		['arms']
	),
	v.forward(
		v.check(
			({ arms }) => new Set(arms.map((one) => `${one.page ?? ''}/${one.name.toLowerCase()}`)).size === arms.length,
			'Give each arm a name of its own.'
		),
		['arms']
	)
);

/** In this century: a load in another one is a slip of the keyboard. */
function isPlausibleTime(text: string): boolean {
	const year = new Date(Date.parse(text)).getUTCFullYear();
	return year >= 2000 && year < 2100;
}

/** The arms of each page of a sweep. */
function pagesOf<Arm extends { page: string | null }>(arms: readonly Arm[]): { page: string; own: Arm[] }[] {
	const pages = [...new Set(arms.map((one) => one.page ?? ''))];
	return pages.map((page) => ({ page, own: arms.filter((one) => (one.page ?? '') === page) }));
}

export type NewTrialInput = v.InferOutput<typeof NewTrialInput>;

/**
 * The arms of a design: exactly one baseline, the first unless another is named; in a sweep one for each page; the same
 * page is looked at twice.
 */
export function armsOf({ kind, arms }: Pick<NewTrialInput, 'kind' | 'arms'>): Omit<TrialArm, 'id'>[] {
	const clean = (one: NewTrialInput['arms'][number], baseline: boolean): Omit<TrialArm, 'id'> => ({
		name: one.name,
		url: new URL(one.url).href,
		baseline,
		reference: false,
		page: one.page,
		setup: one.setup
	});
	if (kind === 'same-page') {
		const [first, second] = arms;
		return [
			clean(first!, true),
			second ? clean(second, false) : clean({ ...first!, name: `${first!.name}, second look` }, false)
		];
	}
	const firstOf = new Map(pagesOf(arms).map(({ page, own }) => [page, own.find((one) => one.baseline) ?? own[0]!]));
	const baseline = arms.find((one) => one.baseline) ?? arms[0]!;
	return arms.map((one) => clean(one, kind === 'sweep' ? firstOf.get(one.page ?? '') === one : one === baseline));
}

export function primaryOf(input: NewTrialInput): MetricId[] {
	return [...new Set(input.primary ?? DEFAULT_PRIMARY)];
}
