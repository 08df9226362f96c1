import { json } from '@sveltejs/kit';
import { getDb, getVisits } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { checkPage } from '$lib/server/visits/live';
import { ensureSource } from '$lib/server/visits/sources';

/** `?path=/timetable`: whether its script was seen, which metrics came, and why others did not. */
export const GET = ({ params, url }) =>
	answering(() => {
		const { siteId, settings } = ensureSource(getDb(), idFrom(params.site, 'site'));
		return json(checkPage(getVisits().db, siteId, url.searchParams.get('path') ?? '/', settings));
	});
