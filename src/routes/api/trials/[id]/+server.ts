import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { trialAnswer } from '$lib/server/trials/answer';
import { deleteTrial, existingTrial } from '$lib/server/trials/commands';

export const GET = ({ params }) =>
	answering(async () => json(await trialAnswer(getDb(), existingTrial(getDb(), idFrom(params.id, 'trial')))));

/** With all its loads. */
export const DELETE = ({ params }) =>
	answering(() => {
		deleteTrial(getDb(), idFrom(params.id, 'trial'));
		return new Response(null, { status: 204 });
	});
