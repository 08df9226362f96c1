import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { findRequest } from '$lib/server/rooms/loads/requested';
import { dropRequest } from '$lib/server/rooms/trials/progress';
import { NotPossible } from '$lib/server/base/refusal';

export const GET = ({ locals, params }) =>
	answering(() => {
		const single = findRequest(locals.db, idFrom(params.id, 'single load'));
		if (!single) throw new NotPossible(404, `There is no single load ${params.id}.`);
		const { id, url, status, loadId } = single;
		return json({ id, url, status, loadId });
	});

/** Called off before it begins. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		dropRequest(locals.db, idFrom(params.id, 'single load'));
		return new Response(null, { status: 204 });
	});
