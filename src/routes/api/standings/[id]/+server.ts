import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { StandingInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { standingView } from '$lib/server/standings/view';
import { changeWatch, deleteWatch, setWatchState } from '$lib/server/watch/commands';

const Change = v.union(
	[v.object({ state: v.picklist(['active', 'paused'], 'A standing is active or paused.') }), StandingInput],
	'Send the whole standing, or its state alone.'
);

export const GET = ({ params }) => answering(() => json(standingView(getDb(), idFrom(params.id, 'standing'))));

/** The whole standing anew, or only whether it is paused. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'standing');
		const change = await readJson(request, Change);
		if ('state' in change) setWatchState(getDb(), id, 'standing', change.state);
		else changeWatch(getDb(), id, { ...change, kind: 'standing' });
		return json(standingView(getDb(), id));
	});

export const DELETE = ({ params }) =>
	answering(() => {
		deleteWatch(getDb(), idFrom(params.id, 'standing'), 'standing');
		return new Response(null, { status: 204 });
	});
