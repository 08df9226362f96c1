import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { repeatByAge, RepeatRequest, repeatTrial } from '$lib/server/rooms/trials/repeat';

/** The same design as a new draft, with a new seed; with ages in hours: queued, one for each. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		const { ages } = await readJson(request, RepeatRequest, { optional: true });
		if (ages.length) return json({ ids: repeatByAge(locals.db, id, ages) }, { status: 201 });
		const repeat = repeatTrial(locals.db, id);
		return json({ id: repeat }, { status: 201, headers: { location: `/api/trials/${repeat}` } });
	});
