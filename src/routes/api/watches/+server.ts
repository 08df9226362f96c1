import { json } from '@sveltejs/kit';
import { WatchInput } from '$core/watch/input';
import { answering, readJson } from '$lib/server/http/api';
import { createWatch } from '$lib/server/rooms/watch/commands';
import { listWatches } from '$lib/server/rooms/watch/view';

/** Newest first; `client` shows one client's. */
export const GET = ({ locals, url }) =>
	answering(() => json({ watches: listWatches(locals.db, 'watch', Number(url.searchParams.get('client')) || null) }));

export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = createWatch(locals.db, { ...(await readJson(request, WatchInput)), kind: 'watch' });
		return json({ id }, { status: 201, headers: { location: `/api/watches/${id}` } });
	});
