/** The door for a new trial: the same schema for the form and for the API. */
import * as v from 'valibot';
import { WebAddress } from '../../load/requests/addressInput';
import { Steps } from '../../load/journey/steps';
import { VisitorState } from '../../load/journey/visitorState';
import { DEFAULT_PRIMARY, isMetricId, type MetricId } from '../../metrics/catalogue';
import { Cold } from './cold';
import { MustSendList } from './mustSend';
import { PresenceChecks, selectorsOf, type PresenceCheck } from './presence';
import { allSelectors } from '../../load/journey/selector';
import { Rewrites } from '../../rewrites/rewrite';
import { Setup } from './setup';
import { FEWEST_CANDIDATES, KINDS, TRIAL_AIMS, TRIAL_KINDS } from './kinds';
import { armLimits, fewestStepRounds, MOST_SAMPLE_PAGES, MOST_STEPS } from './log';
import { PLAN_SPENDS } from './looks';
import { pairCount } from './planEstimate';
import { fewestRounds } from '../judge/verdict';
import type { TrialAim, TrialArm, TrialKind } from '../types';

export const MOST_ROUNDS_ASKED = 100;
/** Of any kind. */
const MOST_ARMS = Math.max(...Object.values(KINDS).map(({ mostArms }) => mostArms));

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
	url: WebAddress,
	baseline: v.optional(v.boolean('“baseline” is true or false.'), false),
	/** Sweeps: which page this is a version of. */
	page: v.optional(
		v.nullable(v.pipe(v.string(), v.trim(), v.maxLength(80, 'A page name has at most 80 characters.'))),
		null
	),
	/** The page of a site that it loads, where it is one that Zafra knows. */
	pageId: v.optional(
		v.nullable(v.pipe(v.number('The page is a number.'), v.safeInteger('The page is a whole number.'))),
		null
	),
	setup: v.optional(v.nullable(Setup), null),
	/** What must be there, or gone, in its loads. */
	checks: v.optional(
		v.pipe(
			PresenceChecks,
			allSelectors((checks: PresenceCheck[]) => selectorsOf(checks))
		),
		[]
	),
	/** How its cache is emptied before each load. */
	cold: v.optional(v.nullable(Cold), null),
	/** Who the visitor is before the page is measured. */
	before: v.optional(v.nullable(VisitorState), null),
	/** What the lab changes of the page on its way. */
	rewrites: v.optional(Rewrites),
	/** A journey of its own: what is done after each of its loads instead of the trial's steps. */
	steps: v.optional(v.nullable(Steps), null)
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
			kind: v.picklist(TRIAL_KINDS, 'The kind is “side-by-side”, “before-after”, “same-page” or “sweep”.'),
			aim: v.optional(v.picklist(TRIAL_AIMS, 'The aim is “baseline” or “best”.'), 'baseline'),
			arms: v.pipe(
				v.array(arm, 'Give a list of arms.'),
				v.minLength(1, 'Give at least one arm.'),
				v.maxLength(MOST_ARMS, `A trial has at most ${MOST_ARMS} arms.`)
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
			referenceUrl: v.optional(WebAddress),
			adaptive: v.optional(v.boolean('“adaptive” is true or false.'), false),
			settleWithinS: v.optional(v.nullable(wholeNumber('The longest wait for a stable page', 5, 1800)), null),
			steps: v.optional(Steps, []),
			/** A before-and-after trial that is a log: its stages after the first are steps. */
			plannedSteps: v.optional(v.nullable(wholeNumber('The planned steps', 1, MOST_STEPS)), null),
			/** Of a log: further pages, which each step may have changed too. */
			samplePages: v.optional(
				v.pipe(
					v.array(WebAddress, 'Give a list of addresses.'),
					v.maxLength(MOST_SAMPLE_PAGES, `A log has at most ${MOST_SAMPLE_PAGES} pages beside its own.`)
				),
				[]
			),
			returnStage: v.optional(v.nullable(wholeNumber('The stage in which the change is taken back', 2, 7)), null),
			/** Those of the client where none are named. */
			mustSend: v.optional(MustSendList),
			lateLoads: v.optional(v.boolean('“lateLoads” is true or false.'), true),
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
			/** Rehearsals: the page is answered as it came once. */
			twin: v.optional(v.boolean('“twin” is true or false.'), true),
			rehearses: v.optional(v.nullable(v.pipe(v.number(), v.safeInteger())), null),
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
	v.rawCheck(({ dataset, addIssue }) => {
		if (!dataset.typed) return;
		const input = dataset.value;
		const at = (key: 'arms' | 'aim' | 'rounds' | 'plannedSteps' | 'samplePages', message: string | null) => {
			if (message) addIssue({ message, path: [{ type: 'object', origin: 'value', input, key, value: input[key] }] });
		};
		at('arms', armsProblem(input) ?? rewritesProblem(input));
		at('aim', aimProblem(input));
		at('rounds', roundsProblem(input) ?? stepRoundsProblem(input));
		at('plannedSteps', logProblem(input));
		at('samplePages', sampleProblem(input));
	})
);

type InputArm = v.InferOutput<typeof arm>;

/** What is wrong with the arms of a kind of trial, in words; null when nothing is. */
function armsProblem({
	kind,
	arms,
	plannedSteps
}: {
	kind: TrialKind;
	arms: readonly InputArm[];
	plannedSteps: number | null;
}): string | null {
	const rules = KINDS[kind];
	const { leastArms, mostArms } = armLimits(kind, { plannedSteps });
	if (arms.length < leastArms) return 'A trial compares at least two arms.';
	if (arms.length > mostArms)
		return rules.samePage
			? 'The same page is loaded twice: give its address once.'
			: rules.pages
				? `A sweep has at most ${mostArms / 2} pages; a page in each visitor state counts as one.`
				: `A trial compares at most ${mostArms} arms.`;
	if (rules.samePage && new Set(arms.map(({ url }) => url)).size > 1)
		return 'Both looks are at the same page: give one address.';
	return (rules.pages ? pagesProblem(arms) : baselineProblem(arms)) ?? namesProblem(arms);
}

function rewritesProblem({ kind, arms }: { kind: TrialKind; arms: readonly InputArm[] }): string | null {
	if (!arms.some(({ rewrites }) => rewrites?.length)) return null;
	if (kind !== 'side-by-side') return 'A rehearsal compares variants side by side.';
	return arms.some(({ cold }) => cold)
		? 'A rehearsal cannot empty the site’s cache: its twin answers for the host.'
		: null;
}

function aimProblem({ kind, aim, arms }: { kind: TrialKind; aim: TrialAim; arms: readonly InputArm[] }): string | null {
	if (!KINDS[kind].aims.includes(aim)) return 'Which is best is asked of variants side by side.';
	return aim === 'best' && arms.length < FEWEST_CANDIDATES
		? `Which is best is asked of ${FEWEST_CANDIDATES} candidates or more; two are compared against the baseline.`
		: null;
}

/** Pairs share the level: the more there are, the more rounds it takes to tell anything of one. */
function roundsProblem({
	aim,
	arms,
	rounds,
	adaptive
}: {
	aim: TrialAim;
	arms: readonly InputArm[];
	rounds: number;
	adaptive: boolean;
}): string | null {
	if (aim !== 'best' || adaptive || arms.length < FEWEST_CANDIDATES) return null;
	const shares = pairCount(arms.length);
	const least = fewestRounds(PLAN_SPENDS / shares);
	return rounds < least
		? `${arms.length} candidates make ${shares} pairs, which share the error level: fewer than ${least} rounds cannot tell any of them apart. Plan ${least} or more.`
		: null;
}

function logProblem({
	kind,
	plannedSteps,
	returnStage
}: {
	kind: TrialKind;
	plannedSteps: number | null;
	returnStage: number | null;
}): string | null {
	if (plannedSteps === null) return null;
	if (!KINDS[kind].stages) return 'A log of steps is a before-and-after trial.';
	return returnStage === null ? null : 'In a log each step says for itself whether it was taken back.';
}

function sampleProblem({
	plannedSteps,
	samplePages,
	arms,
	referenceUrl
}: {
	plannedSteps: number | null;
	samplePages: readonly string[];
	arms: readonly InputArm[];
	referenceUrl?: string | undefined;
}): string | null {
	if (!samplePages.length) return null;
	if (plannedSteps === null) return 'Further pages belong to a log of steps.';
	const all = [arms[0]!.url, ...samplePages, ...(referenceUrl ? [referenceUrl] : [])].map((url) => new URL(url).href);
	return new Set(all).size < all.length
		? 'Each page of a log is named once; the reference page is none of them.'
		: null;
}

function stepRoundsProblem({ plannedSteps, rounds }: { plannedSteps: number | null; rounds: number }): string | null {
	if (plannedSteps === null) return null;
	const least = fewestStepRounds(plannedSteps);
	return rounds < least
		? `Each of ${plannedSteps} steps has a small share of the error level: fewer than ${least} rounds a step cannot tell any of them. Plan ${least} or more.`
		: null;
}

function baselineProblem(arms: readonly InputArm[]): string | null {
	return arms.filter(({ baseline }) => baseline).length > 1 ? 'Only one arm can be the baseline.' : null;
}

function pagesProblem(arms: readonly InputArm[]): string | null {
	const pages = pagesOf(arms);
	if (pages.some(({ own }) => own.length !== 2))
		return 'Each page of a sweep has two arms with the same “page”: without and with one change.';
	return pages.some(({ own }) => own.every(({ baseline }) => baseline))
		? 'Each page of a sweep has one baseline.'
		: null;
}

function namesProblem(arms: readonly InputArm[]): string | null {
	const names = new Set(arms.map(({ page, name }) => `${page ?? ''}/${name.toLowerCase()}`));
	return names.size === arms.length ? null : 'Give each arm a name of its own.';
}

/** In this century: a load in another one is a slip of the keyboard. */
function isPlausibleTime(text: string): boolean {
	const year = new Date(Date.parse(text)).getUTCFullYear();
	return year >= 2000 && year < 2100;
}

/** The arms of each page of a sweep. */
function pagesOf<Arm extends { page: string | null }>(arms: readonly Arm[]): { page: string; own: Arm[] }[] {
	const pages = [...new Set(arms.map((arm) => arm.page ?? ''))];
	return pages.map((page) => ({ page, own: arms.filter((arm) => (arm.page ?? '') === page) }));
}

export type NewTrialInput = v.InferOutput<typeof NewTrialInput>;

/**
 * The arms of a design: exactly one baseline, the first unless another is named; in a sweep one for each page; the same
 * page is looked at twice.
 */
export function armsOf({ kind, arms }: Pick<NewTrialInput, 'kind' | 'arms'>): Omit<TrialArm, 'id'>[] {
	const rules = KINDS[kind];
	const [first, second] = arms as [InputArm, InputArm?];
	if (rules.samePage)
		return [asArm(first, true), asArm(second ?? { ...first, name: `${first.name}, second look` }, false)];
	const firstOf = new Map(
		pagesOf(arms).map(({ page, own }) => [page, own.find(({ baseline }) => baseline) ?? own[0]!])
	);
	const baseline = arms.find((arm) => arm.baseline) ?? first;
	return arms.map((arm) => asArm(arm, rules.pages ? firstOf.get(arm.page ?? '') === arm : arm === baseline));
}

function asArm({ url, rewrites, ...rest }: InputArm, baseline: boolean): Omit<TrialArm, 'id'> {
	const changed = rewrites?.length ? { rewrites } : {};
	return { ...rest, ...changed, url: new URL(url).href, baseline, reference: false };
}

export function primaryOf(input: NewTrialInput): MetricId[] {
	return [...new Set(input.primary ?? DEFAULT_PRIMARY)];
}
