import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { requestPatience } from '$lib/server/rooms/loads/commands';

/** The same page under the same conditions once more; once it has settled, the lab waits on. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = requestPatience(locals.db, idFrom(params.id, 'load'));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
