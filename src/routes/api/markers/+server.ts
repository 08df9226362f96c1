import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { getDb } from '$lib/server/context';
import { addMarker, existingMarker, MarkerInput, markersOfSite } from '$lib/server/field/markers';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const NewMarker = v.object({ siteId: v.number('Name the site by its number.'), ...MarkerInput.entries });

/** Markers of `?site=ID`, newest first. */
export const GET = ({ url }) =>
	answering(() => json({ markers: markersOfSite(getDb(), idFrom(url.searchParams.get('site') ?? '', 'site')) }));

export const POST = ({ request }) =>
	answering(async () => {
		const { siteId, ...marker } = await readJson(request, NewMarker);
		return json(existingMarker(getDb(), addMarker(getDb(), siteId, marker)), { status: 201 });
	});
