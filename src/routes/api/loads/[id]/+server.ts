import { json } from '@sveltejs/kit';
import { deleteLoad } from '$lib/server/loads/commands';
import { answering, idFrom } from '$lib/server/http/api';
import { loadFrom } from '$lib/server/http/loadAnswer';
import { getDb } from '$lib/server/context';

/** Only a load outside trials: those of a trial are its evidence. */
export const DELETE = ({ params }) =>
	answering(() => {
		deleteLoad(getDb(), idFrom(params.id, 'load'));
		return new Response(null, { status: 204 });
	});

export const GET = ({ params }) => answering(() => json(loadFrom(getDb(), params.id).record));
