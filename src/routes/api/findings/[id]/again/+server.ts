import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { lookAgainAt } from '$lib/server/rooms/audits/commands';

/** Its pages alone, looked at again. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = lookAgainAt(locals.db, idFrom(params.id, 'finding'));
		return json({ id }, { status: 201, headers: { location: `/api/audits/${id}` } });
	});
