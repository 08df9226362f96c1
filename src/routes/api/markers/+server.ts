import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { addMarker } from '$lib/server/rooms/field/markers';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingMarker, MarkerInput, markersOfSite } from '$lib/server/rooms/field/view';

const NewMarker = v.object({ siteId: v.number('Name the site by its number.'), ...MarkerInput.entries });

/** Markers of `?site=ID`, newest first. */
export const GET = ({ locals, url }) =>
	answering(() => json({ markers: markersOfSite(locals.db, idFrom(url.searchParams.get('site') ?? '', 'site')) }));

export const POST = ({ locals, request }) =>
	answering(async () => {
		const { siteId, ...marker } = await readJson(request, NewMarker);
		return json(existingMarker(locals.db, addMarker(locals.db, siteId, marker)), { status: 201 });
	});
