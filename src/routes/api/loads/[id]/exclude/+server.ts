import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { excludeLoad } from '$lib/server/loads/commands';

const Reason = v.object({ reason: v.string('Say why this load is excluded: the reason stays with it.') });

export const POST = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'load');
		excludeLoad(getDb(), id, (await readJson(request, Reason)).reason);
		return json({ id });
	});
