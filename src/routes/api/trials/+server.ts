import { json } from '@sveltejs/kit';
import { NewTrialInput } from '$core/trial/design/input';
import { answering, readJson } from '$lib/server/http/api';
import { trialListView } from '$lib/server/rooms/trials/listView';
import { createTrial } from '$lib/server/rooms/trials/commands';

export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = createTrial(locals.db, await readJson(request, NewTrialInput));
		return json({ id }, { status: 201, headers: { location: `/api/trials/${id}` } });
	});

/** A page of the list, newest first; filters as on the screen: `q`, `state`, `kind`, `verdict`, `site`, `client`. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const param = (name: string) => url.searchParams.get(name) ?? '';
		const filter = {
			clientId: Number(param('client')) || null,
			words: param('q'),
			status: param('state'),
			kind: param('kind'),
			tone: param('verdict'),
			host: param('site')
		};
		const { trials, total, page, pages } = trialListView(locals.db, filter, Number(param('page')));
		return json({ trials, total, page, pages });
	});
