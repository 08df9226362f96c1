import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { SiteInput } from '$core/clients/site';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { publicSite } from '$lib/server/rooms/clients/sites';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { insertSite, sitesOf } from '$lib/server/rooms/clients/view';

const NewSite = v.intersect([SiteInput, v.object({ clientId: v.number('Name the client by its number.') })]);

/** Sites of `?client=ID`. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const client = existingClient(locals.db, idFrom(url.searchParams.get('client') ?? '', 'client'));
		return json(sitesOf(locals.db, client.id).map(publicSite));
	});

export const POST = ({ locals, request }) =>
	answering(async () => {
		const { clientId, ...site } = await readJson(request, NewSite);
		const id = insertSite(locals.db, existingClient(locals.db, clientId).id, site);
		return json({ id }, { status: 201, headers: { location: `/api/sites/${id}` } });
	});
