import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { repeatByAge, RepeatRequest, repeatTrial } from '$lib/server/trials/repeat';

/** The same design as a new draft, with a new seed; with ages in hours: queued, one for each. */
export const POST = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		const { ages } = await readJson(request, RepeatRequest, { optional: true });
		if (ages.length) return json({ ids: repeatByAge(getDb(), id, ages) }, { status: 201 });
		const repeat = repeatTrial(getDb(), id);
		return json({ id: repeat }, { status: 201, headers: { location: `/api/trials/${repeat}` } });
	});
