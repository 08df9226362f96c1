import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { trialAnswer } from '$lib/server/rooms/trials/answer';
import { deleteTrial, existingTrial } from '$lib/server/rooms/trials/commands';

export const GET = ({ locals, params }) =>
	answering(async () =>
		json(await trialAnswer(locals.db, existingTrial(locals.db, idFrom(params.id, 'trial')), locals.judgeElsewhere))
	);

/** With all its loads. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteTrial(locals.db, idFrom(params.id, 'trial'));
		return new Response(null, { status: 204 });
	});
