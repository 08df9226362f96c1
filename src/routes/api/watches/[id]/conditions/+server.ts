import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { moveToPresentConditions } from '$lib/server/watch/conditions';
import { existingWatch } from '$lib/server/watch/watches';

/** On under the conditions as they are now, from the next reading. */
export const POST = ({ params }) =>
	answering(() => {
		moveToPresentConditions(getDb(), existingWatch(getDb(), idFrom(params.id, 'watch'), 'watch'));
		return json({}, { status: 202 });
	});
