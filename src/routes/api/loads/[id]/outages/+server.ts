import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { requestOutages } from '$lib/server/rooms/loads/commands';

/** The page of a load once for each outside service and each way to fail; `GET /api/singles/:id` follows each. */
export const POST = ({ locals, params }) =>
	answering(() => json({ singles: requestOutages(locals.db, idFrom(params.id, 'load')) }, { status: 202 }));
