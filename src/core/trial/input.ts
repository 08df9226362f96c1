/** The door for a new trial: the same schema for the form and for the API. */
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS, type Conditions } from '../load/conditions';
import { DEFAULT_PRIMARY, isMetricId, type MetricId } from '../metrics/catalogue';

export const MOST_ROUNDS_ASKED = 100;
export const MOST_ARMS = 8;

/** Whether text is a full http or https address with a host. */
export function isWebAddress(text: string): boolean {
	try {
		const url = new URL(text);
		return (url.protocol === 'http:' || url.protocol === 'https:') && url.hostname !== '' && !/\s/.test(text);
	} catch {
		return false;
	}
}

const address = v.pipe(
	v.string('Give an address.'),
	v.trim(),
	v.nonEmpty('Give an address.'),
	v.maxLength(2000, 'An address has at most 2,000 characters.'),
	v.check(isWebAddress, 'This is not a web address. Write it in full, with http:// or https://.')
);

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
	baseline: v.optional(v.boolean('“baseline” is true or false.'), false)
});

const conditionIds = BUILT_IN_CONDITIONS.map((conditions) => conditions.id);
const conditionWords = `Unknown conditions. Known are: ${conditionIds.join(', ')}.`;

export const NewTrialInput = v.pipe(
	v.object(
		{
			question: v.pipe(
				v.string('Write the question that the trial shall answer.'),
				v.trim(),
				v.nonEmpty('Write the question that the trial shall answer.'),
				v.maxLength(300, 'A question has at most 300 characters.')
			),
			kind: v.picklist(['side-by-side', 'before-after'], 'The kind is “side-by-side” or “before-after”.'),
			arms: v.pipe(
				v.array(arm, 'Give a list of arms.'),
				v.minLength(2, 'A trial compares at least two arms.'),
				v.maxLength(MOST_ARMS, `A trial compares at most ${MOST_ARMS} arms.`)
			),
			conditions: v.pipe(
				v.array(v.picklist(conditionIds, conditionWords), 'Give a list of conditions.'),
				v.minLength(1, 'Choose at least one device.'),
				v.check((ids) => new Set(ids).size === ids.length, 'The same conditions are named twice.')
			),
			rounds: wholeNumber('Rounds', 1, MOST_ROUNDS_ASKED),
			warmups: wholeNumber('Warm-ups', 0, 10),
			seed: v.optional(wholeNumber('The seed', 0, 0xffffffff)),
			primary: v.optional(
				v.pipe(
					v.array(
						v.custom<MetricId>((id) => typeof id === 'string' && isMetricId(id), 'There is no such metric.'),
						'Give a list of metrics.'
					),
					v.minLength(1, 'Choose at least one metric to decide on.')
				)
			),
			referenceUrl: v.optional(address),
			clientId: v.optional(v.nullable(v.pipe(v.number(), v.integer())), null)
		},
		'Send a JSON object that describes the trial.'
	),
	v.forward(
		v.check(({ arms }) => arms.filter((one) => one.baseline).length <= 1, 'Only one arm can be the baseline.'),
		['arms']
	),
	v.forward(
		v.check(
			({ arms }) => new Set(arms.map((one) => one.name.toLowerCase())).size === arms.length,
			'Give each arm a name of its own.'
		),
		['arms']
	)
);

export type NewTrialInput = v.InferOutput<typeof NewTrialInput>;

/** The full conditions behind chosen ids, in the order of the catalogue. */
export function conditionsOf(ids: readonly string[]): Conditions[] {
	return BUILT_IN_CONDITIONS.filter((conditions) => ids.includes(conditions.id));
}

export function primaryOf(input: NewTrialInput): MetricId[] {
	return [...new Set(input.primary ?? DEFAULT_PRIMARY)];
}
