import { json } from '@sveltejs/kit';
import { NewTrialInput } from '$core/trial/input';
import { answering, readJson } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { createTrial } from '$lib/server/queue/trials';

export const POST = ({ request }) =>
	answering(async () => {
		const id = createTrial(getDb(), await readJson(request, NewTrialInput));
		return json({ id }, { status: 201, headers: { location: `/api/trials/${id}` } });
	});
