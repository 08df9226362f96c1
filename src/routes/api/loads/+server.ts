import { json } from '@sveltejs/kit';
import { answering, readJson } from '$lib/server/http/api';
import { requestLoad, LoadRequest } from '$lib/server/rooms/loads/commands';

/** Ask for one load; `GET /api/singles/:id` tells when it is there. */
export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = requestLoad(locals.db, await readJson(request, LoadRequest));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
