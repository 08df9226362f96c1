/** A new trial as its form has it: what was typed, and the design that it makes. */
import * as v from 'valibot';
import { parseSteps } from '$core/load/journey/steps';
import { isWebAddress } from '$core/load/requests/address';
import { parseCold } from '$core/trial/design/cold';
import { NewTrialInput } from '$core/trial/design/input';
import { LOOKS } from '$core/trial/design/looks';
import { hasPages, hasStages, TRIAL_KINDS } from '$core/trial/design/kinds';
import { USUAL_STEPS } from '$core/trial/design/log';
import { pageInState } from '$core/trial/design/sweep';
import { parseMustSend } from '$core/trial/design/mustSend';
import { parsePresence } from '$core/trial/design/presence';
import type { Template } from '$core/trial/design/templates';
import type { TrialKind } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { Invalid, parsed, readAt, type Issue } from '../../base/parse';
import { Figure, Text, Texts, Tick, Ticked } from '../../http/fields';
import type { Typed } from '../../http/form';
import { isEmptySetup, NO_TYPED_SETUP, setupFrom, SetupFields } from '../setups/setupForm';
import { existingState } from '../clients/view';

const ArmRow = v.object({
	name: Text,
	url: Text,
	page: Text,
	setup: v.optional(SetupFields, NO_TYPED_SETUP),
	/** One a line. */
	checks: Text,
	/** How its cache is emptied. */
	cold: Text,
	/** Id of the visitor's state; empty for an anonymous one. */
	before: Text,
	/** A journey of its own; empty for that of all. */
	steps: Text
});
export type TypedArm = v.InferOutput<typeof ArmRow>;

export const TrialFields = v.object({
	clientId: Text,
	kind: v.optional(v.string(), 'side-by-side'),
	/** Against the baseline, or which is best. */
	aim: v.optional(v.string(), 'baseline'),
	question: Text,
	arms: v.optional(v.array(ArmRow), []),
	/** Sweeps: visitor states in which each page is loaded too, by their ids. */
	alsoAs: Texts,
	/** Which arm is the baseline, from 0. */
	baseline: v.optional(v.string(), '0'),
	conditions: Texts,
	primary: Texts,
	adaptive: Tick,
	rounds: Figure,
	warmups: Figure,
	settle: Tick,
	settleWithinS: Figure,
	referenceUrl: Text,
	steps: Text,
	/** One a line. */
	mustSend: Text,
	/** The client has margins or targets of its own, and was asked whether they hold. */
	limits: Tick,
	ownLimits: Ticked,
	/** What comes late is checked at the end. */
	lateLoads: Tick,
	/** The change is taken back in the last stage. */
	takesBack: Tick,
	/** The stages are steps of a log, written down one by one. */
	log: Tick,
	plannedSteps: Figure,
	/** Further pages of a log, an address a line. */
	samplePages: Text,
	notBefore: Text,
	spreadMinutes: Figure,
	/** "draft", or started. */
	then: Text
});
export type TypedTrial = Typed<typeof TrialFields>;

/** An address a line. @throws Error for a line that is none */
function parsePages(text: string): string[] {
	const lines = text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
	const wrong = lines.find((line) => !isWebAddress(line));
	if (wrong) throw new Error(`“${wrong.slice(0, 80)}” is not an address. Write it with https://.`);
	return lines;
}

const USUAL_ROUNDS = 12;
const USUAL_WAIT_S = 60;
const NO_ARM: TypedArm = {
	name: '',
	url: '',
	page: '',
	setup: NO_TYPED_SETUP,
	checks: '',
	cold: '',
	before: '',
	steps: ''
};

/** What a template begins with. */
export function typedTemplate(
	template: Template,
	given: Pick<TypedTrial, 'clientId' | 'conditions' | 'primary' | 'mustSend' | 'limits'>
): TypedTrial {
	return {
		...given,
		kind: template.kind,
		aim: 'baseline',
		question: template.id === 'candidates' ? '' : template.question,
		arms: template.arms.map(({ name, page = '' }) => ({ ...NO_ARM, name, page })),
		baseline: '0',
		alsoAs: [],
		adaptive: template.adaptive,
		rounds: template.adaptive ? USUAL_ROUNDS : template.rounds,
		warmups: 1,
		settle: template.settleWithinS !== null,
		settleWithinS: template.settleWithinS ?? USUAL_WAIT_S,
		referenceUrl: '',
		steps: '',
		ownLimits: true,
		lateLoads: true,
		takesBack: false,
		log: false,
		plannedSteps: USUAL_STEPS,
		samplePages: '',
		notBefore: '',
		spreadMinutes: null,
		then: ''
	};
}

/** Said, so that the client's own do not hold. */
const HOUSE_LIMITS = { margins: {}, targets: {} };

/** @throws Invalid with everything that is wrong, at its field */
export function trialFrom(db: Db, typed: TypedTrial): NewTrialInput {
	// A kind that does not exist is read as the first and refused by the schema under its own name.
	const kind = TRIAL_KINDS.find((own) => own === typed.kind) ?? 'side-by-side';
	const { kind: typedKind, question, conditions, primary, warmups, lateLoads, spreadMinutes } = typed;
	const isAdaptive = typed.adaptive && !hasStages(kind);
	const isLog = typed.log && hasStages(kind);
	const lists = allRead({
		steps: () => parseSteps(typed.steps),
		mustSend: () => parseMustSend(typed.mustSend),
		samplePages: () => (isLog ? parsePages(typed.samplePages) : []),
		...Object.fromEntries(typed.arms.flatMap((arm, i) => Object.entries(readersOf(db, arm, i))))
	});
	const read = typed.arms.slice(0, isLog ? 1 : undefined).map((arm, i) => ({
		name: arm.name,
		// The stages of a before-and-after trial share one address.
		url: hasStages(kind) ? typed.arms[0]!.url : arm.url,
		page: hasPages(kind) ? arm.page : null,
		baseline: isBaseline(kind, i, Number(typed.baseline)),
		...(Object.fromEntries(ARM_LISTS.map((name) => [name, lists[`arms.${i}.${name}`]])) as Partial<ReadLists>)
	}));
	return parsed(NewTrialInput, {
		question,
		kind: typedKind,
		aim: kind === 'side-by-side' ? typed.aim : 'baseline',
		arms: hasPages(kind) ? inStates(db, read, typed.alsoAs) : read,
		conditions,
		adaptive: isAdaptive,
		rounds: isAdaptive ? LOOKS.at(-1)! : (typed.rounds ?? NaN),
		warmups: warmups ?? NaN,
		primary,
		referenceUrl: hasStages(kind) && typed.referenceUrl.trim() ? typed.referenceUrl : undefined,
		settleWithinS: typed.settle ? (typed.settleWithinS ?? USUAL_WAIT_S) : null,
		steps: lists.steps,
		mustSend: lists.mustSend,
		lateLoads,
		plannedSteps: isLog ? (typed.plannedSteps ?? NaN) : null,
		samplePages: lists.samplePages,
		returnStage: hasStages(kind) && !isLog && typed.takesBack ? typed.arms.length - 1 : null,
		notBefore: typed.notBefore || null,
		spreadMinutes,
		clientId: Number(typed.clientId) || null,
		...(typed.limits && !typed.ownLimits && HOUSE_LIMITS)
	});
}

/** Each page of a sweep again in each of the states; a page that has a state of its own keeps to it. */
function inStates<Arm extends { page: string | null; before?: unknown }>(
	db: Db,
	arms: readonly Arm[],
	stateIds: readonly string[]
): Arm[] {
	const states = stateIds.map((id) => existingState(db, Number(id)).state);
	const anonymous = arms.filter(({ before }) => !before);
	return [
		...arms,
		...states.flatMap((state) =>
			anonymous.map((arm) => ({ ...arm, page: pageInState(arm.page ?? '', state.name), before: state }))
		)
	];
}

function isBaseline(kind: TrialKind, i: number, chosen: number): boolean {
	if (hasPages(kind)) return i % 2 === 0;
	return kind === 'side-by-side' ? i === chosen : i === 0;
}

type ReadLists = Record<(typeof ARM_LISTS)[number], unknown>;
const ARM_LISTS = ['checks', 'cold', 'before', 'setup', 'steps'] as const;
type Readers = Record<string, () => unknown>;

/** What an arm types in a grammar of its own, by the path of its field. */
const readersOf = (db: Db, arm: TypedArm, i: number): Readers => ({
	[`arms.${i}.checks`]: () => parsePresence(arm.checks),
	[`arms.${i}.cold`]: () => parseCold(arm.cold),
	[`arms.${i}.before`]: () => (arm.before ? existingState(db, Number(arm.before)).state : null),
	[`arms.${i}.steps`]: () => (arm.steps.trim() ? parseSteps(arm.steps) : null),
	[`arms.${i}.setup`]: () => {
		const setup = setupFrom(arm.setup, `arms.${i}.setup`);
		return isEmptySetup(setup) ? null : setup;
	}
});

/** @throws Invalid with the issues of all of them */
function allRead(readers: Readers): Record<string, unknown> {
	const issues: Issue[] = [];
	const read = Object.entries(readers).map(([path, reader]) => {
		try {
			return [path, readAt(path, reader)] as const;
		} catch (error) {
			issues.push(...(error instanceof Invalid ? error.issues : [{ path, message: (error as Error).message }]));
			return [path, undefined] as const;
		}
	});
	if (issues.length) throw new Invalid(issues);
	return Object.fromEntries(read);
}
