import { error, fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { getDb } from '$lib/server/context';
import { isLargeRecord } from '$lib/server/loads/loads';
import { loadView } from '$lib/server/loads/view';
import {
	requestAsVisitor,
	requestTaps,
	TapRequest,
	requestNudge,
	requestOutages,
	requestPatience
} from '$lib/server/loads/commands';
import { heavily } from '$lib/server/work/heavy';

export const load = async ({ params }) => {
	const id = Number(params.id);
	const view = isLargeRecord(getDb(), id) ? await heavily('loadView', id) : loadView(getDb(), id);
	if (!view) error(404, `There is no load ${params.id}.`);
	return view;
};

export const actions = {
	wait: formAction((_, { params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${requestPatience(getDb(), idFrom(params.id, 'load'))}`)
	),
	taps: formAction((form, { params }: RequestEvent) => {
		const typed = { selector: textOf(form, 'selector'), effect: textOf(form, 'effect') };
		const effectIs = /^[.#[]/.test(typed.effect.trim()) ? 'selector' : 'text';
		const asked = v.safeParse(TapRequest, { ...typed, effectIs });
		if (!asked.success) return fail(422, { tap: typed, issues: issuesOf(asked.issues) });
		requestTaps(getDb(), idFrom(params.id, 'load'), asked.output);
		return { done: true };
	}),
	visitor: formAction((_, { params }: RequestEvent) => {
		requestAsVisitor(getDb(), idFrom(params.id, 'load'));
		return { done: true };
	}),
	outages: formAction((_, { params }: RequestEvent) => {
		requestOutages(getDb(), idFrom(params.id, 'load'));
		return { done: true };
	}),
	nudge: formAction((_, { params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${requestNudge(getDb(), idFrom(params.id, 'load'))}`)
	)
};
