import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { findSingle } from '$lib/server/db/singles';
import { NotPossible } from '$lib/server/queue/trials';

export const GET = ({ params }) =>
	answering(() => {
		const single = findSingle(getDb(), idFrom(params.id, 'single load'));
		if (!single) throw new NotPossible(404, `There is no single load ${params.id}.`);
		const { id, url, status, loadId } = single;
		return json({ id, url, status, loadId });
	});
