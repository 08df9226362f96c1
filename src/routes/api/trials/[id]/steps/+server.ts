import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { addStep, NewStep } from '$lib/server/rooms/trials/steps';

/** The next step of a log: what was changed; it is measured at once. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		const stage = addStep(locals.db, id, await readJson(request, NewStep));
		return json({ id, stage }, { status: 201 });
	});
