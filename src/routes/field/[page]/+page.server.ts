import type { RequestEvent } from './$types';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { DEVICE_CLASSES } from '$core/field/reading';
import { newestEnd } from '$lib/server/rooms/field/gathering';
import { unmarkAction, restoreAction } from '$lib/server/desk/binForm';
import { addMarkerFrom, MarkerFields } from '$lib/server/rooms/field/markerForm';
import { fieldPageView } from '$lib/server/rooms/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { pageVisits } from '$lib/server/rooms/visits/pageVisits';
import { bucketOfPage } from '$lib/server/rooms/visits/buckets';
import { nowIso } from '$lib/server/base/db/connection';
import { existingPage } from '$lib/server/rooms/pages/view';
import { sourceOfSite } from '$lib/server/rooms/visits/view';

export const load = async ({ locals, params }) => {
	const shown = pageOr404(() => {
		const view = fieldPageView(locals.db, idFrom(params.page, 'page'));
		const source = sourceOfSite(locals.db, view.page.siteId);
		const until = newestEnd(nowIso());
		const bucket = bucketOfPage(view.page.url);
		return {
			where: `Field › ${view.page.url}`,
			view,
			visits:
				source &&
				DEVICE_CLASSES.map((device) => pageVisits(locals.visits().db, { visitSource: source, bucket, device, until })),
			conditions: conditionNames(locals.db)
		};
	});
	return { ...shown, form: await formOf(MarkerFields, { path: new URL(shown.view.page.url).pathname }) };
};

export const actions = {
	mark: formAction(MarkerFields, (typed, { locals, params }: RequestEvent, body) =>
		addMarkerFrom(locals.db, existingPage(locals.db, idFrom(params.page, 'page')).siteId, typed, body)
	),
	unmark: unmarkAction,
	restore: restoreAction
};
