import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { requestReading } from '$lib/server/watch/blocks';
import { existingWatch } from '$lib/server/watch/watches';

/** A run now. */
export const POST = ({ params }) =>
	answering(() => {
		const standing = existingWatch(getDb(), idFrom(params.id, 'standing'), 'standing');
		return json({ run: requestReading(getDb(), standing, { why: 'demand' }) }, { status: 202 });
	});
