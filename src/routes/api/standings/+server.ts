import { json } from '@sveltejs/kit';
import { StandingInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { answering, readJson } from '$lib/server/http/api';
import { standingList } from '$lib/server/standings/view';
import { createWatch } from '$lib/server/watch/commands';

/** Newest first; `client` shows one client's. */
export const GET = ({ url }) =>
	answering(() => json({ standings: standingList(getDb(), Number(url.searchParams.get('client')) || null) }));

export const POST = ({ request }) =>
	answering(async () => {
		const id = createWatch(getDb(), { ...(await readJson(request, StandingInput)), kind: 'standing' });
		return json({ id }, { status: 201, headers: { location: `/api/standings/${id}` } });
	});
