import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { startTrial } from '$lib/server/rooms/trials/commands';

const StartInput = v.object({
	stage: v.optional(v.pipe(v.number('The stage is a number from 0.'), v.integer(), v.minValue(0)))
});

export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		const { stage } = await readJson(request, StartInput, { optional: true });
		startTrial(locals.db, id, stage);
		return json({ id }, { status: 202 });
	});
