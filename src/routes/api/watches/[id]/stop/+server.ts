import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { cancelReading } from '$lib/server/watch/blocks';
import { existingWatch } from '$lib/server/watch/watches';

/** The reading under way ends with what it has. */
export const POST = ({ params }) =>
	answering(() => {
		cancelReading(getDb(), existingWatch(getDb(), idFrom(params.id, 'watch'), 'watch'));
		return json({}, { status: 202 });
	});
