import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingSite } from '$lib/server/rooms/clients/view';
import { sampleView, chooseOnly } from '$lib/server/rooms/pages/view';

const Choice = v.object({ pages: v.array(v.number('A page is named by its number.'), 'Give the pages as a list.') });

/** What the chosen pages cover, what one more would add, and a proposal. */
export const GET = ({ locals, params }) =>
	answering(() => json(sampleView(locals.db, existingSite(locals.db, idFrom(params.id, 'site')))));

/** Just these pages are looked at. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const site = existingSite(locals.db, idFrom(params.id, 'site'));
		chooseOnly(locals.db, site.id, (await readJson(request, Choice)).pages);
		return json(sampleView(locals.db, site));
	});
