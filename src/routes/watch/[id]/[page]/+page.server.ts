import type { RequestEvent } from './$types';
import { deleteMarkerFrom, restoreFrom } from '$lib/server/desk/binForm';
import { addMarkerFrom } from '$lib/server/rooms/field/markerForm';
import { pageFieldRows } from '$lib/server/rooms/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/base/refusal';
import { watchedPageView } from '$lib/server/rooms/watch/pageView';

export const load = ({ locals, params, url }) =>
	pageOr404(() => {
		const view = watchedPageView(locals.db, idFrom(params.id, 'watch'), idFrom(params.page, 'page'));
		return {
			where: `Watch › ${view.watch.name} › ${view.page.name}`,
			view,
			on: url.searchParams.get('on'),
			field: view.page.pageId === null ? [] : pageFieldRows(locals.db, view.page.pageId)
		};
	});

export const actions = {
	mark: formAction((form: FormData, { locals, params }: RequestEvent) => {
		const { page } = watchedPageView(locals.db, idFrom(params.id ?? '', 'watch'), idFrom(params.page ?? '', 'page'));
		if (page.siteId === null) throw new NotPossible(409, 'This page is in no site any more: markers belong to sites.');
		return addMarkerFrom(locals.db, page.siteId, form);
	}),
	unmark: formAction((form: FormData, { locals }) => deleteMarkerFrom(locals.db, form)),
	restore: formAction((form: FormData, { locals }) => restoreFrom(locals.db, form))
};
