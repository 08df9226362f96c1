import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { conditionNames } from '$lib/server/conditions/saved';
import { getDb, getVisits } from '$lib/server/context';
import { DEVICE_CLASSES } from '$core/field/reading';
import { newestEnd } from '$lib/server/field/gathering';
import { addMarker, deleteMarker, MarkerInput } from '$lib/server/field/markers';
import { fieldPageView } from '$lib/server/field/view';
import { idFrom } from '$lib/server/http/api';
import { formAction, textOf, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/http/refusal';
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
	mark: formAction((form: FormData, { params }: RequestEvent) => {
		const typed = { day: textOf(form, 'day'), words: textOf(form, 'words'), path: textOf(form, 'path') };
		return withTyped(typed, () => {
			const read = v.safeParse(MarkerInput, typed);
			if (!read.success) throw new NotPossible(422, read.issues[0].message, v.getDotPath(read.issues[0]) ?? '');
			addMarker(getDb(), existingPage(getDb(), idFrom(params.page, 'page')).siteId, read.output);
		});
	}),
	unmark: formAction((form: FormData) => deleteMarker(getDb(), idFrom(textOf(form, 'id'), 'marker')))
};
