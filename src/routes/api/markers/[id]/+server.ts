import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { deleteMarker, existingMarker } from '$lib/server/field/markers';
import { answering, idFrom } from '$lib/server/http/api';

export const GET = ({ params }) => answering(() => json(existingMarker(getDb(), idFrom(params.id, 'marker'))));

export const DELETE = ({ params }) =>
	answering(() => {
		deleteMarker(getDb(), idFrom(params.id, 'marker'));
		return new Response(null, { status: 204 });
	});
