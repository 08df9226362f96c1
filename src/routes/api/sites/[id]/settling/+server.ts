import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingSite } from '$lib/server/rooms/clients/view';
import { requestSettling, SettlingInput, stopSettling } from '$lib/server/rooms/pages/settling';
import { settlingView } from '$lib/server/rooms/pages/view';

/** How many pages of the sample are served from the site's cache by now; null before anybody asked. */
export const GET = ({ locals, params }) =>
	answering(() => json(settlingView(locals.db, existingSite(locals.db, idFrom(params.id, 'site')).id)));

/** `{ conditions?, pages?, withinMinutes? }`: asked by the lab between loads, again until all come from the cache. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'site');
		requestSettling(locals.db, id, await readJson(request, SettlingInput));
		return json(settlingView(locals.db, id), { status: 202 });
	});

/** No page is asked any more; what was answered stays. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		stopSettling(locals.db, id);
		return json(settlingView(locals.db, id));
	});
