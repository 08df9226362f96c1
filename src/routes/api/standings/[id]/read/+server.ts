import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { requestReading } from '$lib/server/rooms/watch/blocks';
import { existingWatch } from '$lib/server/rooms/watch/watches';

/** A run now. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const standing = existingWatch(locals.db, idFrom(params.id, 'standing'), 'standing');
		return json({ run: requestReading(locals.db, standing, { why: 'demand' }) }, { status: 202 });
	});
