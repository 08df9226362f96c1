import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { SiteInput } from '$core/clients/site';
import { changeSite, deleteSite, existingSite, publicSite } from '$lib/server/clients/sites';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';

export const GET = ({ params }) => answering(() => json(publicSite(existingSite(getDb(), idFrom(params.id, 'site')))));

/** Fields that are not sent stay as they are. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'site');
		const site = existingSite(getDb(), id);
		changeSite(getDb(), id, { ...site, ...(await readJson(request, v.partial(SiteInput))) });
		return json(publicSite(existingSite(getDb(), id)));
	});

/** With its pages. */
export const DELETE = ({ params }) =>
	answering(() => {
		deleteSite(getDb(), idFrom(params.id, 'site'));
		return new Response(null, { status: 204 });
	});
