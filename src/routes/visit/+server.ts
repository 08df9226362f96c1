import { errorAnswer, readText } from '$lib/server/http/api';
import { MOST_BEACON_BYTES } from '$lib/server/rooms/visits/accept';

/** Page views of real visitors. A browser that sends a beacon reads no answer: the words are for who tries by hand. */
export const POST = async ({ locals, request, getClientAddress }) => {
	try {
		const answer = await locals.visits().door.take({
			body: await readText(request, MOST_BEACON_BYTES),
			origin: request.headers.get('origin'),
			userAgent: request.headers.get('user-agent') ?? '',
			address: getClientAddress(),
			now: Date.now()
		});
		return answer.status === 204 ? new Response(null, { status: 204 }) : errorAnswer(answer.status, answer.why);
	} catch (error) {
		if ((error as { status?: number }).status === 413) return errorAnswer(413, 'A beacon has at most 32 kB.');
		// Not acknowledged: a page view that cannot be written now is not counted.
		return errorAnswer(503, 'This page view could not be stored.');
	}
};
