import type { RequestEvent } from './$types';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { DEVICE_CLASSES } from '$core/field/reading';
import { newestEnd } from '$lib/server/rooms/field/gathering';
import { deleteMarkerFrom, restoreFrom } from '$lib/server/desk/binForm';
import { addMarkerFrom } from '$lib/server/rooms/field/markerForm';
import { fieldPageView } from '$lib/server/rooms/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { existingPage } from '$lib/server/rooms/pages/queries';
import { pageVisits } from '$lib/server/rooms/visits/pageVisits';
import { placeOfPage } from '$lib/server/rooms/visits/places';
import { sourceOfSite } from '$lib/server/rooms/visits/sources';
import { nowIso } from '$lib/server/base/db/connection';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const view = fieldPageView(locals.db, idFrom(params.page, 'page'));
		const source = sourceOfSite(locals.db, view.page.siteId);
		const until = newestEnd(nowIso());
		const place = placeOfPage(view.page.url);
		return {
			where: `Field › ${view.page.url}`,
			view,
			visits: source && DEVICE_CLASSES.map((device) => pageVisits(locals.visits().db, source, place, device, until)),
			conditions: conditionNames(locals.db)
		};
	});

export const actions = {
	mark: formAction((form: FormData, { locals, params }: RequestEvent) =>
		addMarkerFrom(locals.db, existingPage(locals.db, idFrom(params.page, 'page')).siteId, form)
	),
	unmark: formAction((form: FormData, { locals }) => deleteMarkerFrom(locals.db, form)),
	restore: formAction((form: FormData, { locals }) => restoreFrom(locals.db, form))
};
