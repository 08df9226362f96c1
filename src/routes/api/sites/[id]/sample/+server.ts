import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { existingSite } from '$lib/server/clients/sites';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { chooseOnly } from '$lib/server/pages/commands';
import { sampleView } from '$lib/server/pages/view';

const Choice = v.object({ pages: v.array(v.number('A page is named by its number.'), 'Give the pages as a list.') });

/** What the chosen pages cover, what one more would add, and a proposal. */
export const GET = ({ params }) =>
	answering(() => json(sampleView(getDb(), existingSite(getDb(), idFrom(params.id, 'site')))));

/** Just these pages are looked at. */
export const POST = ({ params, request }) =>
	answering(async () => {
		const site = existingSite(getDb(), idFrom(params.id, 'site'));
		chooseOnly(getDb(), site.id, (await readJson(request, Choice)).pages);
		return json(sampleView(getDb(), site));
	});
