import { json } from '@sveltejs/kit';
import { fieldPageView } from '$lib/server/rooms/field/view';
import { answering, idFrom } from '$lib/server/http/api';

/** All windows of a page, on both devices. */
export const GET = ({ locals, params }) => answering(() => json(fieldPageView(locals.db, idFrom(params.page, 'page'))));
