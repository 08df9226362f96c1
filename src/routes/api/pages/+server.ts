import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changePages, deletePages, pastePages } from '$lib/server/rooms/pages/commands';
import { pagesView } from '$lib/server/rooms/pages/view';
import { existingSite } from '$lib/server/rooms/clients/view';

const ids = v.array(v.number('A page is named by its number.'), 'Give the pages as a list.');
const NewPages = v.object({
	siteId: v.number('Name the site by its number.'),
	addresses: v.pipe(v.array(v.string('An address is text.')), v.maxLength(5000, 'At most 5,000 addresses at once.'))
});
const Change = v.object({
	ids,
	type: v.optional(v.nullable(v.string('A type is text.'))),
	isChosen: v.optional(v.boolean('“isChosen” is true or false.'))
});

const WHICH = ['', 'chosen', 'others', 'quiet'] as const;

/** Pages of `?site=ID`, 25 a page, filtered by `words`, `type` and `which`. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const param = (name: string) => url.searchParams.get(name) ?? '';
		const site = existingSite(locals.db, idFrom(param('site'), 'site'));
		const which = WHICH.find((candidate) => candidate === param('which')) ?? '';
		const filter = { words: param('words'), type: param('type'), which };
		return json(pagesView(locals.db, site, filter, Number(param('page'))));
	});

export const POST = ({ locals, request }) =>
	answering(async () => {
		const { siteId, addresses } = await readJson(request, NewPages);
		return json(pastePages(locals.db, siteId, addresses.join('\n')), { status: 201 });
	});

/** In bulk: the type of pages, and whether they are chosen. */
export const PATCH = ({ locals, request }) =>
	answering(async () => {
		const { ids, ...change } = await readJson(request, Change);
		changePages(locals.db, ids, change);
		return json({ changed: ids.length });
	});

export const DELETE = ({ locals, request }) =>
	answering(async () => json({ deleted: deletePages(locals.db, (await readJson(request, v.object({ ids }))).ids) }));
