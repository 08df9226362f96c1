import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { findNotice, markRead } from '$lib/server/rooms/watch/view';

/** Somebody has read it. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'notice');
		markRead(locals.db, id);
		return json(findNotice(locals.db, id));
	});
