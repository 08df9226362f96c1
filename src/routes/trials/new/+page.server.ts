import { hasPages, hasStages, TRIAL_KINDS } from '$core/trial/kinds';
import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/input';
import { DEFAULT_PRIMARY, METRICS } from '$core/metrics/catalogue';
import { describeConditions } from '$core/load/conditions';
import { parseSteps, type Step } from '$core/load/steps';
import { TEMPLATES } from '$core/trial/templates';
import { issuesOf } from '$lib/server/http/api';
import { formAction, jsonOf } from '$lib/server/http/form';
import { getDb } from '$lib/server/context';
import { findConditions, listConditions } from '$lib/server/conditions/saved';
import { noiseFloor } from '$lib/server/trials/noiseFloors';
import { knownAddresses } from '$lib/server/pages/pages';
import { labLoad } from '$lib/server/trials/timeLeft';
import { createTrial, startTrial } from '$lib/server/trials/commands';
import { NotPossible } from '$lib/server/http/refusal';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	return {
		where: 'Trials › New trial',
		clientId,
		templates: TEMPLATES,
		template: TEMPLATES.find((one) => one.id === url.searchParams.get('template')) ?? TEMPLATES[0]!,
		/** The address says what to begin with: an earlier draft stays put away. */
		isChosen: url.searchParams.has('template'),
		known: knownAddresses(getDb(), clientId, MOST_ADDRESSES),
		...labLoad(getDb()),
		conditions: listConditions(getDb()).map((one) => ({
			id: one.id,
			name: one.name,
			summary: one.summary,
			detail: describeConditions(one),
			usual: one.builtIn,
			noise: noiseOf(one.id)
		})),
		metrics: METRICS.map(({ id, name }) => ({ id: id as string, name, usual: DEFAULT_PRIMARY.includes(id) }))
	};
};

/** Addresses that the form offers. */
const MOST_ADDRESSES = 200;

/** Spread of the paired LCP differences in the newest same-page trial under conditions that measure alike. */
function noiseOf(id: string): { trial: number; spread: number } | null {
	const floor = noiseFloor(getDb(), findConditions(getDb(), id)!);
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
			setup: setups[i] ? jsonOf(setups[i], `arms.${i}.setup`) : null
		})),
		conditions: all('conditions'),
		adaptive: form.has('adaptive') && !hasStages(kind),
		rounds: form.has('adaptive') && !hasStages(kind) ? 24 : number('rounds'),
		warmups: number('warmups'),
		primary: all('primary'),
		referenceUrl: hasStages(kind) && text('referenceUrl') ? text('referenceUrl') : undefined,
		settleWithinS: form.has('settle') ? (optional('settleWithinS') ?? 60) : null,
		steps: text('steps'),
		lateLoads: form.has('lateLoads'),
		notBefore: text('notBefore') || null,
		spreadMinutes: optional('spreadMinutes'),
		clientId: Number(form.get('clientId')) || null
	};
}

export const actions = {
	default: formAction((form) => {
		const values = valuesOf(form);
		let steps: Step[];
		try {
			steps = parseSteps(values.steps);
		} catch (error) {
			return fail(422, { values, issues: [{ path: 'steps', message: (error as Error).message }] });
		}
		const result = v.safeParse(NewTrialInput, { ...values, steps });
		if (!result.success) return fail(422, { values, issues: issuesOf(result.issues) });
		let id: number;
		try {
			id = createTrial(getDb(), result.output);
			if (form.get('then') !== 'draft') startTrial(getDb(), id);
		} catch (error) {
			if (error instanceof NotPossible)
				return fail(error.status, { values, issues: [{ path: error.path ?? '', message: error.message }] });
			throw error;
		}
		redirect(303, `/trials/${id}`);
	})
};
