import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { noteChange } from '$lib/server/rooms/trials/commands';

const Change = v.object({
	words: v.pipe(
		v.string('Say what was changed.'),
		v.trim(),
		v.nonEmpty('Say what was changed.'),
		v.maxLength(2000, 'A change is described in at most 2,000 characters.')
	),
	fileName: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(200))), null),
	file: v.optional(v.nullable(v.string('The settings file is sent as text.')), null)
});

/** What was changed before the next stage, with its settings file. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		noteChange(locals.db, id, await readJson(request, Change));
		return json({ id }, { status: 201 });
	});
