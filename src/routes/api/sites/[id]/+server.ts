import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { SiteInput } from '$core/clients/site';
import { publicSite } from '$lib/server/rooms/clients/sites';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changeSite, deleteSite, existingSite } from '$lib/server/rooms/clients/view';

export const GET = ({ locals, params }) =>
	answering(() => json(publicSite(existingSite(locals.db, idFrom(params.id, 'site')))));

/** Fields that are not sent stay as they are. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'site');
		const site = existingSite(locals.db, id);
		changeSite(locals.db, id, { ...site, ...(await readJson(request, v.partial(SiteInput))) });
		return json(publicSite(existingSite(locals.db, id)));
	});

/** With its pages. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteSite(locals.db, idFrom(params.id, 'site'));
		return new Response(null, { status: 204 });
	});
