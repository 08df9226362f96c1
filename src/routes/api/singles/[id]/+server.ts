import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { findRequest } from '$lib/server/loads/requested';
import { NotPossible } from '$lib/server/http/refusal';

export const GET = ({ params }) =>
	answering(() => {
		const single = findRequest(getDb(), idFrom(params.id, 'single load'));
		if (!single) throw new NotPossible(404, `There is no single load ${params.id}.`);
		const { id, url, status, loadId } = single;
		return json({ id, url, status, loadId });
	});
