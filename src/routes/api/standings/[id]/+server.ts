import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { StandingInput } from '$core/watch/input';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { standingView } from '$lib/server/rooms/standings/view';
import { changeWatch, deleteWatch, setWatchState } from '$lib/server/rooms/watch/commands';

const Change = v.union(
	[v.object({ state: v.picklist(['active', 'paused'], 'A standing is active or paused.') }), StandingInput],
	'Send the whole standing, or its state alone.'
);

export const GET = ({ locals, params }) =>
	answering(() => json(standingView(locals.db, idFrom(params.id, 'standing'))));

/** The whole standing anew, or only whether it is paused. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'standing');
		const change = await readJson(request, Change);
		if ('state' in change) setWatchState(locals.db, id, 'standing', change.state);
		else changeWatch(locals.db, id, { ...change, kind: 'standing' });
		return json(standingView(locals.db, id));
	});

export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteWatch(locals.db, idFrom(params.id, 'standing'), 'standing');
		return new Response(null, { status: 204 });
	});
