/** The step language: what a visitor does after the page has settled, as a small JSON list. Each step has one verb. */
import * as v from 'valibot';
import { isWebReference } from '../requests/address';

export const MOST_STEPS = 50;
/** How long a wait, or an expectation, may take, ms. */
export const WAIT_WITHIN_MS = 5000;
export const EXPECT_WITHIN_MS = 2000;

const selector = v.pipe(
	v.string('A selector is text.'),
	v.trim(),
	v.nonEmpty('A selector is missing.'),
	v.maxLength(500, 'A selector has at most 500 characters.')
);
const words = v.pipe(
	v.string('Give text.'),
	v.nonEmpty('The text is missing.'),
	v.maxLength(500, 'At most 500 characters.')
);
const within = v.optional(
	v.pipe(
		v.number('“within” is a time in ms.'),
		v.minValue(0, '“within” is a time in ms.'),
		v.maxValue(60_000, '“within” is at most 60,000 ms.')
	)
);

const state = v.pipe(
	v.strictObject(
		{
			selector: v.optional(selector),
			text: v.optional(words),
			gone: v.optional(selector),
			title: v.optional(words),
			url: v.optional(words),
			plays: v.optional(selector)
		},
		'Known are: selector, text, gone, title, url, plays.'
	),
	v.check(
		(steps) => Object.values(steps).some((name) => name !== undefined),
		'Say what must be there: selector, text, gone, title, url or plays.'
	)
);

const WAIT = '“wait” takes a time in ms (at most 60,000), or {"selector": …} or {"text": …}.';
/** Keys that can be pressed, by their names in the DOM. */
export const KEYS = ['Enter', 'Tab', 'Escape', 'Space', 'ArrowDown', 'ArrowUp', 'ArrowLeft', 'ArrowRight'] as const;
export type Key = (typeof KEYS)[number];

const STEPS = {
	open: v.strictObject(
		{
			open: v.pipe(
				words,
				v.check(isWebReference, '“open” takes a web address (http or https), whole or relative to the page.')
			)
		},
		'Opening is its address alone: {"open": "/timetable"}.'
	),
	click: v.strictObject({ click: selector }, 'A click is its selector alone: {"click": "#menu"}.'),
	type: v.strictObject(
		{ type: words, into: selector },
		'Typing needs its text and a selector, and nothing else: {"type": "tea", "into": "#search"}.'
	),
	press: v.strictObject(
		{ press: v.picklist(KEYS, `“press” takes a key: ${KEYS.join(', ')}.`) },
		'Pressing is its key alone: {"press": "Enter"}.'
	),
	scroll: v.strictObject(
		{ scroll: v.union([v.number(), selector], '“scroll” takes a selector, “bottom” or a number of pixels.') },
		'A scroll is where it goes to alone: {"scroll": "bottom"}.'
	),
	wait: v.strictObject(
		{
			wait: v.union([v.pipe(v.number(WAIT), v.minValue(0, WAIT), v.maxValue(60_000, WAIT)), state], WAIT),
			within
		},
		'A wait has “wait”, and “within” where it waits for something: {"wait": {"selector": "#list"}, "within": 3000}.'
	),
	expect: v.strictObject(
		{ expect: state, within },
		'An expectation has “expect”, and “within” if it may take its time: {"expect": {"text": "Timetable"}}.'
	),
	trySend: v.strictObject(
		{ trySend: selector },
		'Trying to send a form is its selector alone: {"trySend": "form.contact"}.'
	),
	mark: v.strictObject({ mark: words }, 'A mark is its name alone: {"mark": "Results"}.')
} as const;

const VERBS = Object.keys(STEPS) as (keyof typeof STEPS)[];
/** Picks the schema by the verb, so that a mistake is told of the step that was meant. */
const step = v.lazy((value) => {
	const verb = VERBS.find((name) => typeof value === 'object' && value !== null && name in value);
	return (verb ? STEPS[verb] : v.never(`A step has one of the verbs: ${VERBS.join(', ')}.`)) as v.GenericSchema<
		unknown,
		Step
	>;
});

export type StepState = v.InferOutput<typeof state>;
export type Step = { [Verb in keyof typeof STEPS]: v.InferOutput<(typeof STEPS)[Verb]> }[keyof typeof STEPS];

export const Steps = v.pipe(
	v.array(step, 'Steps are a JSON list.'),
	v.maxLength(MOST_STEPS, `At most ${MOST_STEPS} steps.`)
);

/**
 * Steps from text.
 * @throws Error in words: what is wrong, at which step
 */
export function parseSteps(text: string): Step[] {
	if (text.trim() === '') return [];
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		throw new Error(`The steps are not JSON: ${(error as Error).message}.`, { cause: error });
	}
	const result = v.safeParse(Steps, value);
	if (result.success) return result.output;
	const issue = result.issues[0];
	const place = issue.path?.[0]?.key;
	const field = issue.path
		?.slice(1)
		.map((part) => String(part.key))
		.join('.');
	throw new Error(
		typeof place === 'number' ? `Step ${place + 1}${field ? ` (${field})` : ''}: ${issue.message}` : issue.message
	);
}

export function kindOfStep(step: Step): keyof typeof STEPS {
	return VERBS.find((verb) => verb in step)!;
}

function wordsOfState({ selector: shown, text, gone, title, url, plays }: StepState): string {
	return [
		shown && `${shown} visible`,
		text && `the words “${text}”`,
		gone && `${gone} gone`,
		title && `“${title}” in the title`,
		url && `“${url}” in the address`,
		plays && `${plays} playing`
	]
		.filter(Boolean)
		.join(' and ');
}

/** A step as a person would say it. */
export function wordsOfStep(step: Step): string {
	if ('open' in step) return `Open ${step.open}`;
	if ('click' in step) return `Click ${step.click}`;
	if ('type' in step) return `Type “${step.type}” into ${step.into}`;
	if ('press' in step) return `Press ${step.press}`;
	if ('scroll' in step)
		return typeof step.scroll === 'number'
			? `Scroll by ${step.scroll} px`
			: step.scroll === 'bottom'
				? 'Scroll to the bottom'
				: `Scroll to ${step.scroll}`;
	if ('wait' in step)
		return typeof step.wait === 'number' ? `Wait ${step.wait} ms` : `Wait for ${wordsOfState(step.wait)}`;
	if ('expect' in step) return `Expect ${wordsOfState(step.expect)}`;
	if ('trySend' in step) return `Try to send ${step.trySend}, sending nothing`;
	return `Mark “${step.mark}”`;
}
