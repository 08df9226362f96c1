import { json } from '@sveltejs/kit';
import { StandingInput } from '$core/watch/input';
import { answering, readJson } from '$lib/server/http/api';
import { standingList } from '$lib/server/rooms/standings/view';
import { createWatch } from '$lib/server/rooms/watch/commands';

/** Newest first; `client` shows one client's. */
export const GET = ({ locals, url }) =>
	answering(() => json({ standings: standingList(locals.db, Number(url.searchParams.get('client')) || null) }));

export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = createWatch(locals.db, { ...(await readJson(request, StandingInput)), kind: 'standing' });
		return json({ id }, { status: 201, headers: { location: `/api/standings/${id}` } });
	});
