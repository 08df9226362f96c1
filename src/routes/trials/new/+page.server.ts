import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { DEFAULT_PRIMARY, METRICS, type MetricId } from '$core/metrics/catalogue';
import { describeConditions } from '$core/load/conditions/conditions';
import type { ClientInput } from '$core/clients/client';
import { mustSendLines } from '$core/trial/design/mustSend';
import { marginWords, targetWords } from '$core/wording/limits';
import { TEMPLATES } from '$core/trial/design/templates';
import { formAction, formOf } from '$lib/server/http/form';
import type { Db } from '$lib/server/base/db/connection';
import { findConditions } from '$lib/server/rooms/conditions/saved';
import { noiseFloor } from '$lib/server/rooms/trials/noiseFloors';
import { labLoad } from '$lib/server/rooms/trials/timeLeft';
import { createTrial, startTrial } from '$lib/server/rooms/trials/commands';
import { TrialFields, trialFrom, typedTemplate } from '$lib/server/rooms/trials/form';
import { listConditions } from '$lib/server/rooms/conditions/view';
import { findClient, visitorStates } from '$lib/server/rooms/clients/view';
import { knownAddresses } from '$lib/server/rooms/pages/view';

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const client = clientId === null ? null : findClient(locals.db, clientId);
	const usual = client?.conditions ?? [];
	const template = TEMPLATES.find(({ id }) => id === url.searchParams.get('template')) ?? TEMPLATES[0]!;
	const conditions = listConditions(locals.db).map((own) => ({
		id: own.id,
		name: own.name,
		summary: own.summary,
		detail: describeConditions(own),
		usual: usual.length ? usual.includes(own.id) : own.builtIn,
		noise: noiseOf(locals.db, own.id)
	}));
	const limits = client ? limitsOf(locals.db, client) : [];
	const typed = typedTemplate(template, {
		clientId: String(clientId ?? ''),
		conditions: conditions.filter((own) => own.usual).map(({ id }) => id),
		primary: [...DEFAULT_PRIMARY],
		mustSend: mustSendLines(client?.mustSend ?? []),
		limits: limits.length > 0
	});
	return {
		where: 'Trials › New trial',
		clientId,
		templates: TEMPLATES,
		/** The address says what to begin with: an earlier draft stays put away. */
		isChosen: url.searchParams.has('template'),
		limits,
		form: await formOf(TrialFields, typed),
		states: visitorStates(locals.db, clientId).map(({ id, site, state }) => ({ id, name: `${site}: ${state.name}` })),
		known: knownAddresses(locals.db, clientId, MOST_ADDRESSES),
		...labLoad(locals.db),
		conditions,
		metrics: METRICS.map(({ id, name }) => ({ id: id as string, name, usual: DEFAULT_PRIMARY.includes(id) }))
	};
};

/** What matters to the client, in words; nothing where the house's hold. */
function limitsOf(db: Db, { targets, margins }: Pick<ClientInput, 'targets' | 'margins'>): string[] {
	const conditionsName = (id: string | null) => id && (findConditions(db, id)?.name ?? id);
	return [
		...targets.map((target) => targetWords(target, conditionsName(target.conditions))),
		...Object.entries(margins).map(([metric, margin]) => marginWords(metric as MetricId, margin!))
	];
}

/** Addresses that the form offers. */
const MOST_ADDRESSES = 100;

/** Spread of the paired LCP differences in the newest same-page trial under conditions that measure alike. */
function noiseOf(db: Db, id: string): { trial: number; spread: number } | null {
	const floor = noiseFloor(db, findConditions(db, id)!);
	return floor?.shares.lcp ? { trial: floor.trial, spread: floor.shares.lcp } : null;
}

export const actions = {
	default: formAction(TrialFields, (typed, { locals }: RequestEvent) => {
		const id = createTrial(locals.db, trialFrom(locals.db, typed));
		if (typed.then !== 'draft') startTrial(locals.db, id);
		redirect(303, `/trials/${id}`);
	})
};
