import { json } from '@sveltejs/kit';
import { answering, readText } from '$lib/server/http/api';

const MOST_HAR_BYTES = 60_000_000;

/** The body is a HAR 1.2 file. */
export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = await locals.runHeavy('importHar', await readText(request, MOST_HAR_BYTES), null);
		return json({ id }, { status: 201, headers: { location: `/api/loads/${id}` } });
	});
