import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { existingTrial } from '$lib/server/trials/commands';
import { evidenceView } from '$lib/server/trials/evidenceView';

/** Why, fairness and what broke, as far as it has been worked out. */
export const GET = ({ params }) =>
	answering(() => json(evidenceView(getDb(), existingTrial(getDb(), idFrom(params.id, 'trial')))));
