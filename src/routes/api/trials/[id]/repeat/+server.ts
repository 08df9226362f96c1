import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { repeatTrial } from '$lib/server/trials/repeat';

/** The same design as a new draft, with a new seed. */
export const POST = ({ params }) =>
	answering(() => {
		const id = repeatTrial(getDb(), idFrom(params.id, 'trial'));
		return json({ id }, { status: 201, headers: { location: `/api/trials/${id}` } });
	});
