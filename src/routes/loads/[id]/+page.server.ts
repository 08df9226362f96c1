import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { openIn } from '$lib/fragmentText';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { isLargeRecord } from '$lib/server/rooms/loads/loads';
import { openedParts } from '$lib/server/rooms/loads/view';
import {
	requestAsVisitor,
	requestTaps,
	TapRequest,
	requestNudge,
	requestOutages,
	requestPatience
} from '$lib/server/rooms/loads/commands';

/** What the open parts show; each is fetched when it is opened. */
export const load = async ({ locals: { db, runHeavy }, params, url }) => {
	const [id, open] = [Number(params.id), openIn(url.searchParams)];
	if (!open.length) return { shown: {} };
	return { shown: isLargeRecord(db, id) ? await runHeavy('loadParts', id, open) : openedParts(db, id, open) };
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
