import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { choosePages, deletePages, setType } from '$lib/server/pages/commands';
import { saveProposals } from '$lib/server/pages/gathering';
import { existingPage } from '$lib/server/pages/queries';

const Change = v.object({
	type: v.optional(v.nullable(v.string('A type is text.'))),
	isChosen: v.optional(v.boolean('“isChosen” is true or false.'))
});

export const GET = ({ params }) => answering(() => json(existingPage(getDb(), idFrom(params.id, 'page'))));

export const PATCH = ({ params, request }) =>
	answering(async () => {
		const { id, siteId } = existingPage(getDb(), idFrom(params.id, 'page'));
		const { type, isChosen } = await readJson(request, Change);
		if (type !== undefined) {
			setType(getDb(), [id], type);
			saveProposals(getDb(), siteId);
		}
		if (isChosen !== undefined) choosePages(getDb(), [id], isChosen);
		return json(existingPage(getDb(), id));
	});

/** Trials that loaded it keep its address. */
export const DELETE = ({ params }) =>
	answering(() => {
		deletePages(getDb(), [existingPage(getDb(), idFrom(params.id, 'page')).id]);
		return new Response(null, { status: 204 });
	});
