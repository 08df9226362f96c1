import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { WatchInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changeWatch, deleteWatch, setWatchState } from '$lib/server/watch/commands';
import { watchView } from '$lib/server/watch/view';

const Change = v.union(
	[v.object({ state: v.picklist(['active', 'paused'], 'A watch is active or paused.') }), WatchInput],
	'Send the whole watch, or its state alone.'
);

export const GET = ({ params }) => answering(() => json(watchView(getDb(), idFrom(params.id, 'watch'))));

/** The whole watch anew, or only whether it is paused. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'watch');
		const change = await readJson(request, Change);
		if ('state' in change) setWatchState(getDb(), id, 'watch', change.state);
		else changeWatch(getDb(), id, { ...change, kind: 'watch' });
		return json(watchView(getDb(), id));
	});

export const DELETE = ({ params }) =>
	answering(() => {
		deleteWatch(getDb(), idFrom(params.id, 'watch'), 'watch');
		return new Response(null, { status: 204 });
	});
