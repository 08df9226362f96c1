import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { Decision, decideStep } from '$lib/server/rooms/trials/steps';

/** What became of a step of a log. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		decideStep(locals.db, id, Number(params.stage), await readJson(request, Decision));
		return json({ id });
	});
