import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingSite } from '$lib/server/rooms/clients/view';
import { putOnSite, takeOffSite } from '$lib/server/rooms/setups/view';

const text = v.optional(v.pipe(v.string('This is text.'), v.trim(), v.maxLength(120)), '');
const Use = v.object({ version: text, tier: text });

/** The site runs on the component, in a version and a tier. */
export const PUT = ({ locals, params, request }) =>
	answering(async () => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		const { version, tier } = await readJson(request, Use);
		putOnSite(locals.db, { siteId: id, componentId: idFrom(params.component, 'component'), version, tier });
		return new Response(null, { status: 204 });
	});

export const DELETE = ({ locals, params }) =>
	answering(() => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		takeOffSite(locals.db, id, idFrom(params.component, 'component'));
		return new Response(null, { status: 204 });
	});
