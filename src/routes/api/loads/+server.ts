import { json } from '@sveltejs/kit';
import { answering, readJson } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { askForLoad, SingleInput } from '$lib/server/queue/singles';

/** Ask for one load; `GET /api/singles/:id` tells when it is there. */
export const POST = ({ request }) =>
	answering(async () => {
		const id = askForLoad(getDb(), await readJson(request, SingleInput));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
