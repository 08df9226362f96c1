import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { existingSite } from '$lib/server/rooms/clients/view';
import { hostLookView, requestHostLook } from '$lib/server/rooms/pages/hostLook';

/** The host as it really is: names resolved, connections, whose network. Beside the figures of loads, never in them. */
export const GET = ({ locals, params }) =>
	answering(() => json(hostLookView(locals.db, existingSite(locals.db, idFrom(params.id, 'site')).id)));

/** Looked at by the lab between loads. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'site');
		requestHostLook(locals.db, id);
		return json(hostLookView(locals.db, id), { status: 202 });
	});
