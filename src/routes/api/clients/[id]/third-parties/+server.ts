import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { queueHosts, registerOf } from '$lib/server/rooms/loads/register';
import { saveHostNote, unreadLoads } from '$lib/server/rooms/loads/view';

const text = v.pipe(v.string('Give text.'), v.trim(), v.maxLength(300, 'At most 300 characters.'));
const Note = v.object({
	host: v.pipe(text, v.nonEmpty('Name the host.')),
	owner: v.optional(text, ''),
	purpose: v.optional(text, ''),
	isConfirmed: v.optional(v.boolean('“isConfirmed” is true or false.'), false)
});

export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingClient(locals.db, idFrom(params.id, 'client'));
		const unread = unreadLoads(locals.db, id);
		if (unread) queueHosts(locals.db, id);
		return json({ unread, hosts: registerOf(locals.db, id) });
	});

/** Write down what a host is for, or confirm that it is wanted. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const { id } = existingClient(locals.db, idFrom(params.id, 'client'));
		saveHostNote(locals.db, id, await readJson(request, Note));
		return new Response(null, { status: 204 });
	});
