import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { loadFrom } from '$lib/server/rooms/loads/answer';
import { NotPossible } from '$lib/server/base/refusal';

/** One request with all its headers; numbered from 1 in the load's own order. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const request = loadFrom(locals.db, params.id).record.requests[idFrom(params.number, 'request') - 1];
		if (!request) throw new NotPossible(404, `There is no request ${params.number} in this load.`);
		return json(request);
	});
