import { json } from '@sveltejs/kit';
import { deleteLoad } from '$lib/server/rooms/loads/commands';
import { answering, idFrom } from '$lib/server/http/api';
import { loadFrom } from '$lib/server/rooms/loads/answer';

/** Only a load outside trials: those of a trial are its evidence. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteLoad(locals.db, idFrom(params.id, 'load'));
		return new Response(null, { status: 204 });
	});

export const GET = ({ locals, params }) => answering(() => json(loadFrom(locals.db, params.id).record));
