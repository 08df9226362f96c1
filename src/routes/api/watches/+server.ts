import { json } from '@sveltejs/kit';
import { WatchInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { answering, readJson } from '$lib/server/http/api';
import { createWatch } from '$lib/server/watch/commands';
import { listWatches } from '$lib/server/watch/watches';

/** Newest first; `client` shows one client's. */
export const GET = ({ url }) =>
	answering(() => json({ watches: listWatches(getDb(), 'watch', Number(url.searchParams.get('client')) || null) }));

export const POST = ({ request }) =>
	answering(async () => {
		const id = createWatch(getDb(), { ...(await readJson(request, WatchInput)), kind: 'watch' });
		return json({ id }, { status: 201, headers: { location: `/api/watches/${id}` } });
	});
