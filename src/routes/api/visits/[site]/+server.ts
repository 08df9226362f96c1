import { json } from '@sveltejs/kit';
import { USUAL_VISIT_SETTINGS, VisitSettings } from '$core/field/visitSettings';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { beginVisits, changeVisits } from '$lib/server/rooms/visits/commands';
import { existingSite } from '$lib/server/rooms/clients/view';
import { liveView, sourceOfSite } from '$lib/server/rooms/visits/view';

/** The newest visits since midnight, how many came in each hour, and the key and settings of the site's script. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingSite(locals.db, idFrom(params.site, 'site'));
		const source = sourceOfSite(locals.db, id);
		return json({
			source,
			...liveView(locals.visits().db, source ?? { siteId: id, settings: USUAL_VISIT_SETTINGS })
		});
	});

/** Begin to take visits of a site. */
export const POST = ({ locals, params }) =>
	answering(() => json(beginVisits(locals.db, locals.visits().db, idFrom(params.site, 'site')), { status: 201 }));

export const PUT = ({ locals, params, request }) =>
	answering(async () => {
		const settings = await readJson(request, VisitSettings);
		const source = changeVisits(locals.db, locals.visits().db, idFrom(params.site, 'site'), settings);
		locals.visits().door.forget();
		return json(source);
	});
