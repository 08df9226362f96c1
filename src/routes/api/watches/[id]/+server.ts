import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { WatchInput } from '$core/watch/input';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changeWatch, deleteWatch, setWatchState } from '$lib/server/rooms/watch/commands';
import { watchView } from '$lib/server/rooms/watch/view';

const Change = v.union(
	[v.object({ state: v.picklist(['active', 'paused'], 'A watch is active or paused.') }), WatchInput],
	'Send the whole watch, or its state alone.'
);

export const GET = ({ locals, params }) => answering(() => json(watchView(locals.db, idFrom(params.id, 'watch'))));

/** The whole watch anew, or only whether it is paused. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'watch');
		const change = await readJson(request, Change);
		if ('state' in change) setWatchState(locals.db, id, 'watch', change.state);
		else changeWatch(locals.db, id, { ...change, kind: 'watch' });
		return json(watchView(locals.db, id));
	});

export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteWatch(locals.db, idFrom(params.id, 'watch'), 'watch');
		return new Response(null, { status: 204 });
	});
