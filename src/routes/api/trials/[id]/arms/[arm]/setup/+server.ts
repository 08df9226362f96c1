import { json } from '@sveltejs/kit';
import { Setup } from '$core/trial/setup';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { changeSetup } from '$lib/server/trials/commands';

/** What the page of an arm runs on; replaces what was written before. */
export const PUT = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		changeSetup(getDb(), id, idFrom(params.arm, 'arm'), await readJson(request, Setup));
		return json({ id });
	});
