import * as v from 'valibot';
import { acceptProposals } from '$lib/server/rooms/pages/commands';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingSite } from '$lib/server/rooms/clients/view';

const Accepted = v.object({
	/** One proposed type; null for all. */
	type: v.optional(v.nullable(v.string('A type is text.')), null),
	/** What it is called instead. */
	name: v.optional(v.nullable(v.pipe(v.string('A name is text.'), v.trim(), v.nonEmpty('Give it a name.'))), null)
});

/** Proposed types of pages are taken. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		const { type, name } = await readJson(request, Accepted);
		acceptProposals(locals.db, id, type, name);
		return new Response(null, { status: 204 });
	});
