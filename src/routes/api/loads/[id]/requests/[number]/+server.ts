import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { loadFrom } from '$lib/server/http/loadAnswer';
import { getDb } from '$lib/server/context';
import { NotPossible } from '$lib/server/http/refusal';

/** One request with all its headers; numbered from 1 in the load's own order. */
export const GET = ({ params }) =>
	answering(() => {
		const request = loadFrom(getDb(), params.id).record.requests[idFrom(params.number, 'request') - 1];
		if (!request) throw new NotPossible(404, `There is no request ${params.number} in this load.`);
		return json(request);
	});
