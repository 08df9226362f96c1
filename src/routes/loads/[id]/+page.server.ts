import { error, fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { isLargeRecord } from '$lib/server/rooms/loads/loads';
import { loadView } from '$lib/server/rooms/loads/view';
import { findTrial } from '$lib/server/rooms/trials/trial';
import {
	requestAsVisitor,
	requestTaps,
	TapRequest,
	requestNudge,
	requestOutages,
	requestPatience
} from '$lib/server/rooms/loads/commands';

export const load = async ({ locals, params }) => {
	const id = Number(params.id);
	const view = isLargeRecord(locals.db, id)
		? await locals.heavily('loadView', id)
		: loadView(locals.db, id, (trialId) => findTrial(locals.db, trialId));
	if (!view) error(404, `There is no load ${params.id}.`);
	return view;
};

export const actions = {
	wait: formAction((_, { locals, params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${requestPatience(locals.db, idFrom(params.id, 'load'))}`)
	),
	taps: formAction((form, { locals, params }: RequestEvent) => {
		const typed = { selector: textOf(form, 'selector'), effect: textOf(form, 'effect') };
		const effectIs = /^[.#[]/.test(typed.effect.trim()) ? 'selector' : 'text';
		const asked = v.safeParse(TapRequest, { ...typed, effectIs });
		if (!asked.success) return fail(422, { tap: typed, issues: issuesOf(asked.issues) });
		requestTaps(locals.db, idFrom(params.id, 'load'), asked.output);
		return { done: true };
	}),
	visitor: formAction((_, { locals, params }: RequestEvent) => {
		requestAsVisitor(locals.db, idFrom(params.id, 'load'));
		return { done: true };
	}),
	outages: formAction((_, { locals, params }: RequestEvent) => {
		requestOutages(locals.db, idFrom(params.id, 'load'));
		return { done: true };
	}),
	nudge: formAction((_, { locals, params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${requestNudge(locals.db, idFrom(params.id, 'load'))}`)
	)
};
