/** The door for conditions that the analyst edits. */
import * as v from 'valibot';
import { completeConditions, type Conditions } from './conditions';
import { parseHostMap } from '../requests/hostMap';
import { PLACES } from './places';

function number(name: string, least: number, most: number, unit = '') {
	const words = `${name} must be a number from ${least.toLocaleString('en-GB')} to ${most.toLocaleString('en-GB')}${unit}.`;
	return v.pipe(v.number(words), v.finite(words), v.minValue(least, words), v.maxValue(most, words));
}

const text = (name: string, most: number) =>
	v.pipe(v.string(`${name} is text.`), v.trim(), v.maxLength(most, `${name} has at most ${most} characters.`));
const required = (name: string, most: number) => v.pipe(text(name, most), v.nonEmpty(`${name} is missing.`));
/** RFC 9110: a token. */
const TOKEN = /^[!#$%&'*+.^_`|~0-9A-Za-z-]+$/;
const namedValues = <More extends v.ObjectEntries>(what: string, more: More) =>
	v.pipe(
		v.array(
			v.object({
				name: v.pipe(
					required(`The name of a ${what}`, 200),
					v.regex(TOKEN, `A ${what} name has letters, digits and - only.`)
				),
				value: v.pipe(
					text(`The value of a ${what}`, 4000),
					v.regex(/^[^\r\n\0]*$/, `The value of a ${what} is one line.`)
				),
				...more
			})
		),
		v.maxLength(50, `At most 50 ${what}s.`)
	);

const HOST = v.pipe(
	v.string('A host is text.'),
	v.trim(),
	v.toLowerCase(),
	v.regex(/^[a-z0-9-]+(\.[a-z0-9-]+)+$/, 'A host stands alone, for example files.example.test.')
);

/** What is wrong with the rules of a host map, in words; null when they can be read. */
function hostMapProblem(rules: string): string | null {
	try {
		parseHostMap(rules, 'The host map');
		return null;
	} catch (problem) {
		return (problem as Error).message;
	}
}

export const CONDITIONS_ID = /^[a-z0-9][a-z0-9-]{0,39}$/;

export const ConditionsInput = v.object({
	id: v.pipe(
		text('The key', 40),
		v.regex(CONDITIONS_ID, 'The key has small letters, digits and - only, for example slow-phone.')
	),
	name: required('The name', 60),
	summary: text('The summary', 200),
	device: v.object({
		width: v.pipe(number('The width', 200, 3840, ' px'), v.integer('The width is a whole number.')),
		height: v.pipe(number('The height', 200, 2400, ' px'), v.integer('The height is a whole number.')),
		pixelRatio: number('The pixel ratio', 0.5, 4),
		touch: v.boolean(),
		mobile: v.boolean(),
		targetSpeed: v.nullable(number('The target speed', 1, 5000, ' loops/ms')),
		userAgent: v.nullable(text('The user agent', 400))
	}),
	network: v.object({
		roundTripMs: number('The round trip', 0, 2000, ' ms'),
		downKbps: number('The rate down', 50, 1_000_000, ' kbit/s'),
		upKbps: number('The rate up', 50, 1_000_000, ' kbit/s'),
		dnsMs: number('The look-up', 0, 2000, ' ms')
	}),
	place: v.picklist(
		PLACES.map((place) => place.id),
		'There is no such place.'
	),
	cache: v.picklist(['first', 'repeat'], 'The cache is “first” or “repeat”.'),
	input: v.picklist(['none', 'nudge'], 'The input is “none” or “nudge”.'),
	block: v.pipe(v.array(required('A pattern', 500)), v.maxLength(100, 'At most 100 patterns.')),
	headers: namedValues('header', {
		hosts: v.optional(v.pipe(v.array(HOST), v.maxLength(20, 'At most 20 hosts beside a header.')))
	}),
	cookies: namedValues('cookie', {}),
	hostMap: v.pipe(
		text('The host map', 2000),
		v.rawCheck(({ dataset, addIssue }) => {
			const problem = dataset.typed ? hostMapProblem(dataset.value) : null;
			if (problem) addIssue({ message: problem });
		})
	),
	authentication: v.nullable(
		v.object({ username: required('The user name', 200), password: text('The password', 200) })
	),
	capMs: number('The time cap', 3000, 300_000, ' ms'),
	quietMs: number('The quiet time', 300, 10_000, ' ms')
});

/** Conditions from a form or a file; what is left out is usual. */
export function parseConditions(value: unknown): v.SafeParseResult<typeof ConditionsInput> {
	const filled =
		typeof value === 'object' && value !== null && 'device' in value && 'network' in value
			? completeConditions(value as Conditions)
			: value;
	return v.safeParse(ConditionsInput, filled);
}
