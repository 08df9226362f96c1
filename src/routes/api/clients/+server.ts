import { json } from '@sveltejs/kit';
import { ClientInput } from '$core/clients/client';
import { createClient } from '$lib/server/clients/commands';
import { listClients } from '$lib/server/clients/clients';
import { getDb } from '$lib/server/context';
import { answering, readJson } from '$lib/server/http/api';

export const GET = () => json(listClients(getDb()));

export const POST = ({ request }) =>
	answering(async () => {
		const id = createClient(getDb(), await readJson(request, ClientInput));
		return json({ id }, { status: 201, headers: { location: `/api/clients/${id}` } });
	});
