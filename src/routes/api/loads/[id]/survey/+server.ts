import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { surveyView } from '$lib/server/rooms/loads/surveyView';

/** What can be picked of the page, and which checks hold; asked for with `survey: true` in `POST /api/loads`. */
export const GET = ({ locals, params }) => answering(() => json(surveyView(locals.db, idFrom(params.id, 'load'))));
