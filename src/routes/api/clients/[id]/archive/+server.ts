import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { archiveClient } from '$lib/server/clients/commands';
import { existingClient } from '$lib/server/clients/clients';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const Wish = v.object({ archived: v.optional(v.boolean('“archived” is true or false.'), true) });

export const POST = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'client');
		archiveClient(getDb(), id, (await readJson(request, Wish, { optional: true })).archived);
		return json(existingClient(getDb(), id));
	});
