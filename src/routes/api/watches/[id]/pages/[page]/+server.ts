import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { watchedPageView } from '$lib/server/watch/pageView';

export const GET = ({ params }) =>
	answering(() => json(watchedPageView(getDb(), idFrom(params.id, 'watch'), idFrom(params.page, 'page'))));
