import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { requestTaps, TapRequest } from '$lib/server/rooms/loads/commands';

/** A control of the page pressed at first paint, one and three seconds later; `GET /api/singles/:id` follows each. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const tap = await readJson(request, TapRequest);
		return json({ singles: requestTaps(locals.db, idFrom(params.id, 'load'), tap) }, { status: 202 });
	});
