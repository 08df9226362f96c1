import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { existingTrial } from '$lib/server/rooms/trials/commands';
import { evidenceView } from '$lib/server/rooms/trials/evidenceView';

/** Why, fairness and what broke, as far as it has been worked out. */
export const GET = ({ locals, params }) =>
	answering(() => json(evidenceView(locals.db, existingTrial(locals.db, idFrom(params.id, 'trial')))));
