import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { requestReading } from '$lib/server/rooms/watch/blocks';
import { existingWatch } from '$lib/server/rooms/watch/watches';

/** A reading now. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const watch = existingWatch(locals.db, idFrom(params.id, 'watch'), 'watch');
		return json({ reading: requestReading(locals.db, watch, { why: 'demand' }) }, { status: 202 });
	});
