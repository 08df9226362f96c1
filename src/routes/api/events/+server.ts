import { eventStream } from '$lib/server/desk/events';

export const GET = ({ locals, request }) =>
	new Response(eventStream(locals.db, request.signal), {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
