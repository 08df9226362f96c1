import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { excludeLoad } from '$lib/server/rooms/loads/commands';

const Reason = v.object({ reason: v.string('Say why this load is excluded: the reason stays with it.') });

export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'load');
		excludeLoad(locals.db, id, (await readJson(request, Reason)).reason);
		return json({ id });
	});
