import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { changeClient, deleteClient } from '$lib/server/clients/commands';
import { existingClient } from '$lib/server/clients/clients';
import { publicSite, sitesOf } from '$lib/server/clients/sites';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';

export const GET = ({ params }) =>
	answering(() => {
		const client = existingClient(getDb(), idFrom(params.id, 'client'));
		return json({ ...client, sites: sitesOf(getDb(), client.id).map(publicSite) });
	});

/** Fields that are not sent stay as they are. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'client');
		const { id: _id, archivedAt: _archivedAt, ...client } = existingClient(getDb(), id);
		changeClient(getDb(), id, { ...client, ...(await readJson(request, v.partial(ClientInput))) });
		return json(existingClient(getDb(), id));
	});

/** With its sites, pages, trials and loads. */
export const DELETE = ({ params }) =>
	answering(() => {
		deleteClient(getDb(), idFrom(params.id, 'client'));
		return new Response(null, { status: 204 });
	});
