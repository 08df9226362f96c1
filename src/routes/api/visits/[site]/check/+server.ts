import { json } from '@sveltejs/kit';
import { USUAL_VISIT_SETTINGS } from '$core/field/visitSettings';
import { answering, idFrom } from '$lib/server/http/api';
import { existingSite } from '$lib/server/rooms/clients/view';
import { checkPage, sourceOfSite } from '$lib/server/rooms/visits/view';

/** `?path=/timetable`: whether its script was seen, which metrics came, and why others did not. */
export const GET = ({ locals, params, url }) =>
	answering(() => {
		const { id } = existingSite(locals.db, idFrom(params.site, 'site'));
		const settings = sourceOfSite(locals.db, id)?.settings ?? USUAL_VISIT_SETTINGS;
		return json(checkPage(locals.visits().db, id, url.searchParams.get('path') ?? '/', settings));
	});
