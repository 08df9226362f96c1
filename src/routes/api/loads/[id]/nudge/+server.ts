import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { requestNudge } from '$lib/server/loads/commands';

/** The same page under the same conditions once more, with simulated interaction. */
export const POST = ({ params }) =>
	answering(() => {
		const id = requestNudge(getDb(), idFrom(params.id, 'load'));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
