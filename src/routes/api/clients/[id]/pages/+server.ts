import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { answering, idFrom } from '$lib/server/http/api';
import { pageOffer } from '$lib/server/rooms/watch/pageChoice';
import { findPages, PageSearch } from '$lib/server/rooms/watch/view';

/**
 * Pages of a client that a `?for=watch` or `?for=standing` can have, those that match `words`, `type` and `site`; with
 * `?offer=1` also the types, the sites, the pairs by page type, and the chosen pages.
 */
export const GET = ({ locals, params, url }) =>
	answering(() => {
		const { id } = existingClient(locals.db, idFrom(params.id, 'client'));
		const param = (name: string) => url.searchParams.get(name) ?? '';
		const kind = param('for') === 'standing' ? 'standing' : 'watch';
		if (param('offer')) return json(pageOffer(locals.db, id, kind));
		const search = v.parse(PageSearch, {
			words: param('words'),
			type: param('type'),
			site: Number(param('site')) || 0
		});
		return json(findPages(locals.db, id, kind, search));
	});
