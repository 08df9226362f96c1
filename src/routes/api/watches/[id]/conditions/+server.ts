import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { moveToPresentConditions } from '$lib/server/rooms/watch/conditions';
import { existingWatch } from '$lib/server/rooms/watch/watches';

/** On under the conditions as they are now, from the next reading. */
export const POST = ({ locals, params }) =>
	answering(() => {
		moveToPresentConditions(locals.db, existingWatch(locals.db, idFrom(params.id, 'watch'), 'watch'));
		return json({}, { status: 202 });
	});
