import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { requestReading } from '$lib/server/watch/blocks';
import { existingWatch } from '$lib/server/watch/watches';

/** A reading now. */
export const POST = ({ params }) =>
	answering(() => {
		const watch = existingWatch(getDb(), idFrom(params.id, 'watch'), 'watch');
		return json({ reading: requestReading(getDb(), watch, { why: 'demand' }) }, { status: 202 });
	});
