import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { intendDifference } from '$lib/server/rooms/trials/commands';

const Line = v.object({
	line: v.pipe(v.string('Name the line of the fairness sheet.'), v.nonEmpty('Name the line.'), v.maxLength(40))
});

/** A line of the fairness sheet differs on purpose, or no longer; asked twice, it is as before. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'trial');
		const { line } = await readJson(request, Line);
		return json({ id, intended: intendDifference(locals.db, id, line) });
	});
