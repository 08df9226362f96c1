import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { requestNudge } from '$lib/server/rooms/loads/commands';

/** The same page under the same conditions once more, with simulated interaction. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = requestNudge(locals.db, idFrom(params.id, 'load'));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
