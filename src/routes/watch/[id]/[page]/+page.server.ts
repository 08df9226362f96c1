import type { RequestEvent } from './$types';
import { restoreAction, unmarkAction } from '$lib/server/desk/binForm';
import { addMarkerFrom, MarkerFields } from '$lib/server/rooms/field/markerForm';
import { pageFieldRows } from '$lib/server/rooms/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/base/refusal';
import { watchedPageView } from '$lib/server/rooms/watch/pageView';

export const load = async ({ locals, params, url }) => {
	const shown = pageOr404(() => {
		const view = watchedPageView(locals.db, idFrom(params.id, 'watch'), idFrom(params.page, 'page'));
		return {
			where: `Watch › ${view.watch.name} › ${view.page.name}`,
			view,
			on: url.searchParams.get('on'),
			field: view.page.pageId === null ? [] : pageFieldRows(locals.db, view.page.pageId)
		};
	});
	return { ...shown, form: await formOf(MarkerFields, { path: new URL(shown.view.page.url).pathname }) };
};

export const actions = {
	mark: formAction(MarkerFields, (typed, { locals, params }: RequestEvent, body) => {
		const { page } = watchedPageView(locals.db, idFrom(params.id ?? '', 'watch'), idFrom(params.page ?? '', 'page'));
		if (page.siteId === null) throw new NotPossible(409, 'This page is in no site any more: markers belong to sites.');
		return addMarkerFrom(locals.db, page.siteId, typed, body);
	}),
	unmark: unmarkAction,
	restore: restoreAction
};
