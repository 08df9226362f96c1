import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { archiveClient } from '$lib/server/rooms/clients/commands';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const Wish = v.object({ archived: v.optional(v.boolean('“archived” is true or false.'), true) });

export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'client');
		archiveClient(locals.db, id, (await readJson(request, Wish, { optional: true })).archived);
		return json(existingClient(locals.db, id));
	});
