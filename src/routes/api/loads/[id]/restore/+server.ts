import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { leaveOut } from '$lib/server/queue/trials';

export const POST = ({ params }) =>
	answering(() => {
		const id = idFrom(params.id, 'load');
		leaveOut(getDb(), id, null);
		return json({ id });
	});
