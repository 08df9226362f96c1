import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { requestPatience } from '$lib/server/loads/commands';

/** The same page under the same conditions once more; once it has settled, the lab waits on. */
export const POST = ({ params }) =>
	answering(() => {
		const id = requestPatience(getDb(), idFrom(params.id, 'load'));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
