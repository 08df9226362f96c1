import { json } from '@sveltejs/kit';
import { Setup } from '$core/trial/design/setup';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changeSetup } from '$lib/server/rooms/trials/commands';

/** What the page of an arm runs on; replaces what was written before. */
export const PUT = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		changeSetup(locals.db, id, idFrom(params.arm, 'arm'), await readJson(request, Setup));
		return json({ id });
	});
