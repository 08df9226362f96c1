import type { RequestEvent } from './$types';
import { getDb } from '$lib/server/context';
import { deleteMarkerFrom, restoreFrom } from '$lib/server/desk/binForm';
import { addMarkerFrom } from '$lib/server/field/markerForm';
import { pageFieldRows } from '$lib/server/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/http/refusal';
import { watchedPageView } from '$lib/server/watch/pageView';

export const load = ({ params, url }) =>
	pageOr404(() => {
		const view = watchedPageView(getDb(), idFrom(params.id, 'watch'), idFrom(params.page, 'page'));
		return {
			where: `Watch › ${view.watch.name} › ${view.page.name}`,
			view,
			on: url.searchParams.get('on'),
			field: view.page.pageId === null ? [] : pageFieldRows(getDb(), view.page.pageId)
		};
	});

export const actions = {
	mark: formAction((form: FormData, { params }: RequestEvent) => {
		const { page } = watchedPageView(getDb(), idFrom(params.id ?? '', 'watch'), idFrom(params.page ?? '', 'page'));
		if (page.siteId === null) throw new NotPossible(409, 'This page is in no site any more: markers belong to sites.');
		return addMarkerFrom(getDb(), page.siteId, form);
	}),
	unmark: formAction((form: FormData) => deleteMarkerFrom(getDb(), form)),
	restore: formAction((form: FormData) => restoreFrom(getDb(), form))
};
