import { getDb } from '$lib/server/context';
import { eventStream } from '$lib/server/http/events';

export const GET = ({ request }) =>
	new Response(eventStream(getDb(), request.signal), {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
