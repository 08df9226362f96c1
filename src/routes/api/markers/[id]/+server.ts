import { json } from '@sveltejs/kit';
import { deleteMarker } from '$lib/server/rooms/field/markers';
import { answering, idFrom } from '$lib/server/http/api';
import { existingMarker } from '$lib/server/rooms/field/view';

export const GET = ({ locals, params }) =>
	answering(() => json(existingMarker(locals.db, idFrom(params.id, 'marker'))));

export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteMarker(locals.db, idFrom(params.id, 'marker'));
		return new Response(null, { status: 204 });
	});
