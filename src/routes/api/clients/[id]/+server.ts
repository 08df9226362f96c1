import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { changeClient, deleteClient } from '$lib/server/clients/commands';
import { existingClient } from '$lib/server/clients/clients';
import { publicSite, sitesOf } from '$lib/server/clients/sites';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const Change = v.object({
	...v.partial(ClientInput).entries,
	revision: v.optional(v.pipe(v.number('The revision is a number.'), v.integer('The revision is a whole number.')))
});

export const GET = ({ params }) =>
	answering(() => {
		const client = existingClient(getDb(), idFrom(params.id, 'client'));
		return json({ ...client, sites: sitesOf(getDb(), client.id).map(publicSite) });
	});

/** Fields that are not sent stay as they are; with the “revision” that was read, 409 when somebody saved meanwhile. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'client');
		const { id: _id, archivedAt: _archivedAt, revision: _revision, ...client } = existingClient(getDb(), id);
		const { revision = null, ...change } = await readJson(request, Change);
		changeClient(getDb(), id, { ...client, ...change }, revision);
		return json(existingClient(getDb(), id));
	});

/** With its sites, pages, trials and loads. */
export const DELETE = ({ params }) =>
	answering(() => {
		deleteClient(getDb(), idFrom(params.id, 'client'));
		return new Response(null, { status: 204 });
	});
