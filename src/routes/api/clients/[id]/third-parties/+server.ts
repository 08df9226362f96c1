import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { existingClient } from '$lib/server/clients/clients';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { queueHosts, registerOf, saveHostNote, unreadLoads } from '$lib/server/setups/register';

const text = v.pipe(v.string('Give text.'), v.trim(), v.maxLength(300, 'At most 300 characters.'));
const Note = v.object({
	host: v.pipe(text, v.nonEmpty('Name the host.')),
	owner: v.optional(text, ''),
	purpose: v.optional(text, ''),
	isConfirmed: v.optional(v.boolean('“isConfirmed” is true or false.'), false)
});

export const GET = ({ params }) =>
	answering(() => {
		const { id } = existingClient(getDb(), idFrom(params.id, 'client'));
		const unread = unreadLoads(getDb(), id);
		if (unread) queueHosts(getDb(), id);
		return json({ unread, hosts: registerOf(getDb(), id) });
	});

/** Write down what a host is for, or confirm that it is wanted. */
export const POST = ({ params, request }) =>
	answering(async () => {
		const { id } = existingClient(getDb(), idFrom(params.id, 'client'));
		saveHostNote(getDb(), id, await readJson(request, Note));
		return new Response(null, { status: 204 });
	});
