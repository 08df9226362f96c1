import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { stopTrial } from '$lib/server/queue/trials';

export const POST = ({ params }) =>
	answering(() => {
		const id = idFrom(params.id, 'trial');
		stopTrial(getDb(), id);
		return json({ id }, { status: 202 });
	});
