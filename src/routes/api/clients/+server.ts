import { json } from '@sveltejs/kit';
import { ClientInput } from '$core/clients/client';
import { answering, readJson } from '$lib/server/http/api';
import { listClients } from '$lib/server/rooms/clients/view';
import { createClient } from '$lib/server/rooms/clients/commands';

export const GET = ({ locals }) => json(listClients(locals.db));

export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = createClient(locals.db, await readJson(request, ClientInput));
		return json({ id }, { status: 201, headers: { location: `/api/clients/${id}` } });
	});
