import { gzipSync } from 'node:zlib';
import script from 'virtual:visit-script';
import { scriptFor } from '$lib/server/rooms/visits/script';

/** Short enough that settings reach visitors within the hour. */
const CACHE = 'public, max-age=3600';

/** The visits' script with the settings of `?site=KEY`. */
export const GET = ({ locals, url, request }) => {
	const text = scriptFor(locals.db, {
		visits: locals.visits().db,
		key: url.searchParams.get('site') ?? '',
		program: script,
		now: Date.now()
	});
	if (text === null)
		return new Response('No site of this Zafra has this key: copy the script tag from Zafra again.', { status: 404 });
	const isPacked = /\bgzip\b/.test(request.headers.get('accept-encoding') ?? '');
	return new Response(isPacked ? new Uint8Array(gzipSync(text)) : text, {
		headers: {
			'content-type': 'text/javascript; charset=utf-8',
			'cache-control': CACHE,
			'timing-allow-origin': '*',
			vary: 'accept-encoding',
			...(isPacked ? { 'content-encoding': 'gzip' } : {})
		}
	});
};
