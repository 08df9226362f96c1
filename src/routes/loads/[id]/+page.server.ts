import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { openIn } from '$lib/fragmentText';
import { parsed } from '$lib/server/base/parse';
import { idFrom } from '$lib/server/http/api';
import { BUTTON } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { TapFields } from '$lib/server/rooms/loads/form';
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
	const tapForm = await formOf(TapFields);
	if (!open.length) return { shown: {}, tapForm };
	const shown = isLargeRecord(db, id) ? await runHeavy('loadParts', id, open) : openedParts(db, id, open);
	return { shown, tapForm };
};

export const actions = {
	wait: formAction(BUTTON, (_, { locals, params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${requestPatience(locals.db, idFrom(params.id, 'load'))}`)
	),
	taps: formAction(TapFields, (typed, { locals, params }: RequestEvent) => {
		const effectIs = /^[.#[]/.test(typed.effect.trim()) ? 'selector' : 'text';
		requestTaps(locals.db, idFrom(params.id, 'load'), parsed(TapRequest, { ...typed, effectIs }));
	}),
	visitor: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		requestAsVisitor(locals.db, idFrom(params.id, 'load'));
	}),
	outages: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		requestOutages(locals.db, idFrom(params.id, 'load'));
	}),
	nudge: formAction(BUTTON, (_, { locals, params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${requestNudge(locals.db, idFrom(params.id, 'load'))}`)
	)
};
