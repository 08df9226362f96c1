import { json } from '@sveltejs/kit';
import { answering, readJson } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { requestLoad, LoadRequest } from '$lib/server/loads/commands';

/** Ask for one load; `GET /api/singles/:id` tells when it is there. */
export const POST = ({ request }) =>
	answering(async () => {
		const id = requestLoad(getDb(), await readJson(request, LoadRequest));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
