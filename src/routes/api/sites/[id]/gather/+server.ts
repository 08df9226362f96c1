import { json } from '@sveltejs/kit';
import { existingSite } from '$lib/server/clients/sites';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { GatherOrder, requestGathering } from '$lib/server/pages/gathering';
import { gatheringView } from '$lib/server/pages/view';

/** How the last gathering went, or is going; null before the first. */
export const GET = ({ params }) =>
	answering(() => json(gatheringView(getDb(), existingSite(getDb(), idFrom(params.id, 'site')).id)));

/** `{ what: "sitemap" | "crawl", url }` or `{ what: "types" }`: done by the lab between loads. */
export const POST = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'site');
		requestGathering(getDb(), id, await readJson(request, GatherOrder));
		return json(gatheringView(getDb(), id), { status: 202 });
	});
