import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { GatherOrder, requestGathering } from '$lib/server/rooms/pages/gathering';
import { gatheringView } from '$lib/server/rooms/pages/view';
import { existingSite } from '$lib/server/rooms/clients/view';

/** How the last gathering went, or is going; null before the first. */
export const GET = ({ locals, params }) =>
	answering(() => json(gatheringView(locals.db, existingSite(locals.db, idFrom(params.id, 'site')).id)));

/** `{ what: "sitemap" | "crawl", url }` or `{ what: "types" }`: done by the lab between loads. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'site');
		requestGathering(locals.db, id, await readJson(request, GatherOrder));
		return json(gatheringView(locals.db, id), { status: 202 });
	});
