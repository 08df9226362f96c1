import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { SiteInput } from '$core/clients/site';
import { existingClient } from '$lib/server/clients/clients';
import { insertSite, publicSite, sitesOf } from '$lib/server/clients/sites';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const NewSite = v.intersect([SiteInput, v.object({ clientId: v.number('Name the client by its number.') })]);

/** Sites of `?client=ID`. */
export const GET = ({ url }) =>
	answering(() => {
		const client = existingClient(getDb(), idFrom(url.searchParams.get('client') ?? '', 'client'));
		return json(sitesOf(getDb(), client.id).map(publicSite));
	});

export const POST = ({ request }) =>
	answering(async () => {
		const { clientId, ...site } = await readJson(request, NewSite);
		const id = insertSite(getDb(), existingClient(getDb(), clientId).id, site);
		return json({ id }, { status: 201, headers: { location: `/api/sites/${id}` } });
	});
