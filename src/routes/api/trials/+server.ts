import { json } from '@sveltejs/kit';
import { NewTrialInput } from '$core/trial/input';
import { answering, readJson } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { trialListView } from '$lib/server/trials/listView';
import { createTrial } from '$lib/server/trials/commands';

export const POST = ({ request }) =>
	answering(async () => {
		const id = createTrial(getDb(), await readJson(request, NewTrialInput));
		return json({ id }, { status: 201, headers: { location: `/api/trials/${id}` } });
	});

/** A page of the list, newest first; filters as on the screen: `q`, `state`, `kind`, `verdict`, `site`, `client`. */
export const GET = ({ url }) =>
	answering(() => {
		const asked = (name: string) => url.searchParams.get(name) ?? '';
		const filter = {
			clientId: Number(asked('client')) || null,
			words: asked('q'),
			status: asked('state'),
			kind: asked('kind'),
			tone: asked('verdict'),
			host: asked('site')
		};
		const { trials, total, page, pages } = trialListView(getDb(), filter, Number(asked('page')));
		return json({ trials, total, page, pages });
	});
