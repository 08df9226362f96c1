import { json } from '@sveltejs/kit';
import { USUAL_VISIT_SETTINGS } from '$core/field/visitSettings';
import { existingSite } from '$lib/server/clients/sites';
import { getDb, getVisits } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { checkPage } from '$lib/server/visits/live';
import { sourceOfSite } from '$lib/server/visits/sources';

/** `?path=/timetable`: whether its script was seen, which metrics came, and why others did not. */
export const GET = ({ params, url }) =>
	answering(() => {
		const { id } = existingSite(getDb(), idFrom(params.site, 'site'));
		const settings = sourceOfSite(getDb(), id)?.settings ?? USUAL_VISIT_SETTINGS;
		return json(checkPage(getVisits().db, id, url.searchParams.get('path') ?? '/', settings));
	});
