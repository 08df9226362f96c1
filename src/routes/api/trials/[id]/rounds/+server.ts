import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { addRounds } from '$lib/server/rooms/trials/commands';

const RoundsInput = v.object({
	rounds: v.pipe(v.number('Say how many rounds to add.'), v.integer('Rounds are a whole number.'))
});

/** More rounds for a trial that is done: a further look, at its cost in level. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		addRounds(locals.db, id, (await readJson(request, RoundsInput)).rounds);
		return json({ id }, { status: 202 });
	});
