import { hasPages, hasStages, TRIAL_KINDS } from '$core/trial/design/kinds';
import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import { DEFAULT_PRIMARY, METRICS, type MetricId } from '$core/metrics/catalogue';
import { describeConditions } from '$core/load/conditions/conditions';
import { parseSteps } from '$core/load/journey/steps';
import { parseCold } from '$core/trial/design/cold';
import type { ClientInput } from '$core/clients/client';
import { mustSendLines, parseMustSend } from '$core/trial/design/mustSend';
import { parsePresence } from '$core/trial/design/presence';
import { marginWords, targetWords } from '$core/wording/limits';
import { TEMPLATES } from '$core/trial/design/templates';
import { issuesOf } from '$lib/server/http/api';
import { formAction, jsonOf } from '$lib/server/http/form';
import type { Db } from '$lib/server/base/db/connection';
import { findConditions, listConditions } from '$lib/server/rooms/conditions/saved';
import { noiseFloor } from '$lib/server/rooms/trials/noiseFloors';
import { findClient } from '$lib/server/rooms/clients/clients';
import { existingState, visitorStates } from '$lib/server/rooms/clients/visitorStates';
import { knownAddresses } from '$lib/server/rooms/pages/pages';
import { labLoad } from '$lib/server/rooms/trials/timeLeft';
import { createTrial, startTrial } from '$lib/server/rooms/trials/commands';
import { NotPossible } from '$lib/server/base/refusal';

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const client = clientId === null ? null : findClient(locals.db, clientId);
	const usual = client?.conditions ?? [];
	return {
		where: 'Trials › New trial',
		clientId,
		templates: TEMPLATES,
		template: TEMPLATES.find((one) => one.id === url.searchParams.get('template')) ?? TEMPLATES[0]!,
		/** The address says what to begin with: an earlier draft stays put away. */
		isChosen: url.searchParams.has('template'),
		usual: { mustSend: mustSendLines(client?.mustSend ?? []), limits: client ? limitsOf(locals.db, client) : [] },
		states: visitorStates(locals.db, clientId).map(({ id, site, state }) => ({ id, name: `${site}: ${state.name}` })),
		known: knownAddresses(locals.db, clientId, MOST_ADDRESSES),
		...labLoad(locals.db),
		conditions: listConditions(locals.db).map((one) => ({
			id: one.id,
			name: one.name,
			summary: one.summary,
			detail: describeConditions(one),
			usual: usual.length ? usual.includes(one.id) : one.builtIn,
			noise: noiseOf(locals.db, one.id)
		})),
		metrics: METRICS.map(({ id, name }) => ({ id: id as string, name, usual: DEFAULT_PRIMARY.includes(id) }))
	};
};

/** What matters to the client, in words; nothing where the house's hold. */
function limitsOf(db: Db, { targets, margins }: Pick<ClientInput, 'targets' | 'margins'>): string[] {
	const nameOf = (id: string | null) => id && (findConditions(db, id)?.name ?? id);
	return [
		...targets.map((target) => targetWords(target, nameOf(target.conditions))),
		...Object.entries(margins).map(([metric, margin]) => marginWords(metric as MetricId, margin!))
	];
}

/** Addresses that the form offers. */
const MOST_ADDRESSES = 200;

/** Spread of the paired LCP differences in the newest same-page trial under conditions that measure alike. */
function noiseOf(db: Db, id: string): { trial: number; spread: number } | null {
	const floor = noiseFloor(db, findConditions(db, id)!);
	return floor?.shares.lcp ? { trial: floor.trial, spread: floor.shares.lcp } : null;
}

function valuesOf(form: FormData) {
	const all = (name: string) => form.getAll(name).map(String);
	const text = (name: string) => String(form.get(name) ?? '').trim();
	const number = (name: string) => (text(name) === '' ? NaN : Number(text(name)));
	const optional = (name: string) => (text(name) === '' ? null : Number(text(name)));
	const urls = all('arm-url');
	const pages = all('arm-page');
	const setups = all('arm-setup');
	const checks = all('arm-checks');
	const colds = all('arm-cold');
	const befores = all('arm-before');
	const asked = text('kind') || 'side-by-side';
	// A kind that does not exist is read as the first and refused by the schema under its own name.
	const kind = TRIAL_KINDS.find((known) => known === asked) ?? 'side-by-side';
	const baseline = Number(form.get('baseline') ?? 0);
	return {
		question: text('question'),
		kind: asked,
		// The stages of a before-and-after trial share one address.
		arms: all('arm-name').map((name, i) => ({
			name,
			url: hasStages(kind) ? (urls[0] ?? '') : (urls[i] ?? ''),
			page: hasPages(kind) ? (pages[i] ?? '') : null,
			baseline: hasPages(kind) ? i % 2 === 0 : kind === 'side-by-side' ? i === baseline : i === 0,
			setup: setups[i] ? jsonOf(setups[i], `arms.${i}.setup`) : null,
			checks: checks[i] ?? '',
			cold: colds[i] ?? '',
			before: befores[i] ?? ''
		})),
		conditions: all('conditions'),
		adaptive: form.has('adaptive') && !hasStages(kind),
		rounds: form.has('adaptive') && !hasStages(kind) ? 24 : number('rounds'),
		warmups: number('warmups'),
		primary: all('primary'),
		referenceUrl: hasStages(kind) && text('referenceUrl') ? text('referenceUrl') : undefined,
		settleWithinS: form.has('settle') ? (optional('settleWithinS') ?? 60) : null,
		steps: text('steps'),
		mustSend: text('mustSend'),
		ownLimits: form.has('ownLimits') || !form.has('limits'),
		lateLoads: form.has('lateLoads'),
		returnStage: hasStages(kind) && form.has('takesBack') ? all('arm-name').length - 1 : null,
		notBefore: text('notBefore') || null,
		spreadMinutes: optional('spreadMinutes'),
		clientId: Number(form.get('clientId')) || null
	};
}

/** What is typed as lines or as JSON; each that cannot be read is told at its own field. */
function readLists(db: Db, values: ReturnType<typeof valuesOf>) {
	const issues: { path: string; message: string }[] = [];
	const read = <Value>(path: string, parse: () => Value): Value | undefined => {
		try {
			return parse();
		} catch (error) {
			issues.push({ path, message: (error as Error).message });
			return undefined;
		}
	};
	const steps = read('steps', () => parseSteps(values.steps));
	const mustSend = read('mustSend', () => parseMustSend(values.mustSend));
	const arms = values.arms.map((arm, i) => ({
		...arm,
		checks: read(`arms.${i}.checks`, () => parsePresence(arm.checks)),
		cold: read(`arms.${i}.cold`, () => parseCold(arm.cold)),
		before: read(`arms.${i}.before`, () => (arm.before ? existingState(db, Number(arm.before)).state : null))
	}));
	return issues.length ? { issues } : { steps, mustSend, arms };
}

/** Said, so that the client's own do not hold. */
const NO_LIMITS = { margins: {}, targets: {} };

export const actions = {
	default: formAction((form, { locals }) => {
		const values = valuesOf(form);
		const read = readLists(locals.db, values);
		if ('issues' in read) return fail(422, { values, issues: read.issues });
		const result = v.safeParse(NewTrialInput, { ...values, ...read, ...(!values.ownLimits && NO_LIMITS) });
		if (!result.success) return fail(422, { values, issues: issuesOf(result.issues) });
		let id: number;
		try {
			id = createTrial(locals.db, result.output);
			if (form.get('then') !== 'draft') startTrial(locals.db, id);
		} catch (error) {
			if (error instanceof NotPossible)
				return fail(error.status, { values, issues: [{ path: error.path ?? '', message: error.message }] });
			throw error;
		}
		redirect(303, `/trials/${id}`);
	})
};
