import type { RequestEvent } from './$types';
import { conditionNames } from '$lib/server/conditions/saved';
import { getDb, getVisits } from '$lib/server/context';
import { DEVICE_CLASSES } from '$core/field/reading';
import { newestEnd } from '$lib/server/field/gathering';
import { deleteMarkerFrom, restoreFrom } from '$lib/server/desk/binForm';
import { addMarkerFrom } from '$lib/server/field/markerForm';
import { fieldPageView } from '$lib/server/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { existingPage } from '$lib/server/pages/queries';
import { pageVisits } from '$lib/server/visits/pageVisits';
import { placeOfPage } from '$lib/server/visits/places';
import { sourceOfSite } from '$lib/server/visits/sources';
import { nowIso } from '$lib/server/db/connection';

export const load = ({ params }) =>
	pageOr404(() => {
		const view = fieldPageView(getDb(), idFrom(params.page, 'page'));
		const source = sourceOfSite(getDb(), view.page.siteId);
		const until = newestEnd(nowIso());
		const place = placeOfPage(view.page.url);
		return {
			where: `Field › ${view.page.url}`,
			view,
			visits: source && DEVICE_CLASSES.map((device) => pageVisits(getVisits().db, source, place, device, until)),
			conditions: conditionNames(getDb())
		};
	});

export const actions = {
	mark: formAction((form: FormData, { params }: RequestEvent) =>
		addMarkerFrom(getDb(), existingPage(getDb(), idFrom(params.page, 'page')).siteId, form)
	),
	unmark: formAction((form: FormData) => deleteMarkerFrom(getDb(), form)),
	restore: formAction((form: FormData) => restoreFrom(getDb(), form))
};
