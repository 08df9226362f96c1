import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { fieldPageView } from '$lib/server/field/view';
import { answering, idFrom } from '$lib/server/http/api';

/** All windows of a page, on both devices. */
export const GET = ({ params }) => answering(() => json(fieldPageView(getDb(), idFrom(params.page, 'page'))));
