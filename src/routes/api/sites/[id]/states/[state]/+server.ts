import { answering, idFrom } from '$lib/server/http/api';
import { deleteState } from '$lib/server/rooms/clients/view';

/** Trials keep their own copies. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteState(locals.db, idFrom(params.state, 'visitor state'));
		return new Response(null, { status: 204 });
	});
