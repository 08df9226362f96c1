import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { watchedPageView } from '$lib/server/rooms/watch/pageView';

export const GET = ({ locals, params }) =>
	answering(() => json(watchedPageView(locals.db, idFrom(params.id, 'watch'), idFrom(params.page, 'page'))));
