import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { cancelReading } from '$lib/server/rooms/watch/blocks';
import { existingWatch } from '$lib/server/rooms/watch/watches';

/** The reading under way ends with what it has. */
export const POST = ({ locals, params }) =>
	answering(() => {
		cancelReading(locals.db, existingWatch(locals.db, idFrom(params.id, 'watch'), 'watch'));
		return json({}, { status: 202 });
	});
