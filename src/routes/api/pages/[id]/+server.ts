import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changePages, deletePages } from '$lib/server/rooms/pages/commands';
import { existingPage } from '$lib/server/rooms/pages/view';

const Change = v.object({
	type: v.optional(v.nullable(v.string('A type is text.'))),
	isChosen: v.optional(v.boolean('“isChosen” is true or false.'))
});

export const GET = ({ locals, params }) => answering(() => json(existingPage(locals.db, idFrom(params.id, 'page'))));

export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const { id } = existingPage(locals.db, idFrom(params.id, 'page'));
		changePages(locals.db, [id], await readJson(request, Change));
		return json(existingPage(locals.db, id));
	});

/** Trials that loaded it keep its address. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deletePages(locals.db, [existingPage(locals.db, idFrom(params.id, 'page')).id]);
		return new Response(null, { status: 204 });
	});
