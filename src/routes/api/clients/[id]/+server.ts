import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { changeClient, deleteClient } from '$lib/server/rooms/clients/commands';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { publicSite } from '$lib/server/rooms/clients/sites';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { sitesOf } from '$lib/server/rooms/clients/view';

const Change = v.object({
	...v.partial(ClientInput).entries,
	revision: v.optional(v.pipe(v.number('The revision is a number.'), v.integer('The revision is a whole number.')))
});

export const GET = ({ locals, params }) =>
	answering(() => {
		const client = existingClient(locals.db, idFrom(params.id, 'client'));
		return json({ ...client, sites: sitesOf(locals.db, client.id).map(publicSite) });
	});

/** Fields that are not sent stay as they are; with the “revision” that was read, 409 when somebody saved meanwhile. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'client');
		const { id: _id, archivedAt: _archivedAt, revision: _revision, ...client } = existingClient(locals.db, id);
		const { revision = null, ...change } = await readJson(request, Change);
		changeClient(locals.db, id, { ...client, ...change }, revision);
		return json(existingClient(locals.db, id));
	});

/** With its sites, pages, trials and loads. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteClient(locals.db, idFrom(params.id, 'client'));
		return new Response(null, { status: 204 });
	});
