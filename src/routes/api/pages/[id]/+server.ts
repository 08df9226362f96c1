import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { choosePages, deletePages, setType } from '$lib/server/rooms/pages/commands';
import { saveProposals } from '$lib/server/rooms/pages/gathering';
import { existingPage } from '$lib/server/rooms/pages/queries';

const Change = v.object({
	type: v.optional(v.nullable(v.string('A type is text.'))),
	isChosen: v.optional(v.boolean('“isChosen” is true or false.'))
});

export const GET = ({ locals, params }) => answering(() => json(existingPage(locals.db, idFrom(params.id, 'page'))));

export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const { id, siteId } = existingPage(locals.db, idFrom(params.id, 'page'));
		const { type, isChosen } = await readJson(request, Change);
		if (type !== undefined) {
			setType(locals.db, [id], type);
			saveProposals(locals.db, siteId);
		}
		if (isChosen !== undefined) choosePages(locals.db, [id], isChosen);
		return json(existingPage(locals.db, id));
	});

/** Trials that loaded it keep its address. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deletePages(locals.db, [existingPage(locals.db, idFrom(params.id, 'page')).id]);
		return new Response(null, { status: 204 });
	});
