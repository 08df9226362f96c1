import { json } from '@sveltejs/kit';
import { answering } from '$lib/server/http/api';
import { worklistFilterOf } from '$lib/server/rooms/audits/filter';
import { worklistView } from '$lib/server/rooms/audits/worklistView';

/** `?client=&state=&rule=&page=` (a page of a site) and `&rows=` (a page of the list). */
export const GET = ({ locals, url }) =>
	answering(() => {
		const { filter, rows } = worklistFilterOf(url.searchParams);
		return json(worklistView(locals.db, filter, rows));
	});
