import { json } from '@sveltejs/kit';
import { USUAL_VISIT_SETTINGS, VisitSettings } from '$core/field/visitSettings';
import { existingSite } from '$lib/server/clients/sites';
import { getDb, getVisits } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { liveView } from '$lib/server/visits/live';
import { beginVisits, changeVisits } from '$lib/server/visits/commands';
import { sourceOfSite } from '$lib/server/visits/sources';

/** The newest visits since midnight, how many came in each hour, and the key and settings of the site's script. */
export const GET = ({ params }) =>
	answering(() => {
		const { id } = existingSite(getDb(), idFrom(params.site, 'site'));
		const source = sourceOfSite(getDb(), id);
		return json({
			source,
			...liveView(getVisits().db, source ?? { siteId: id, settings: USUAL_VISIT_SETTINGS })
		});
	});

/** Begin to take visits of a site. */
export const POST = ({ params }) =>
	answering(() => json(beginVisits(getDb(), getVisits().db, idFrom(params.site, 'site')), { status: 201 }));

export const PUT = ({ params, request }) =>
	answering(async () => {
		const settings = await readJson(request, VisitSettings);
		const source = changeVisits(getDb(), getVisits().db, idFrom(params.site, 'site'), settings);
		getVisits().door.forget();
		return json(source);
	});
