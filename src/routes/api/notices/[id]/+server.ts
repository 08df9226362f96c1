import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { findNotice, markRead } from '$lib/server/watch/notices';

/** Somebody has read it. */
export const POST = ({ params }) =>
	answering(() => {
		const id = idFrom(params.id, 'notice');
		markRead(getDb(), id);
		return json(findNotice(getDb(), id));
	});
