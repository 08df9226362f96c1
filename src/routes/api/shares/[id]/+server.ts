import { answering, idFrom } from '$lib/server/http/api';
import { revokeShare } from '$lib/server/rooms/reports/view';

/** Ends a link at once. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		revokeShare(locals.db, idFrom(params.id, 'link'));
		return new Response(null, { status: 204 });
	});
