import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { describeRemoval } from '$core/wording/gathering';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { idFrom } from '$lib/server/http/api';
import { Text } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { queueHosts, registerOf } from '$lib/server/rooms/loads/register';
import { saveHostNote, unreadLoads } from '$lib/server/rooms/loads/view';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const { id, name } = existingClient(locals.db, idFrom(params.id, 'client'));
		const unread = unreadLoads(locals.db, id);
		if (unread) queueHosts(locals.db, id);
		return {
			where: `Clients › ${name} › Third parties`,
			client: { id, name },
			unread,
			lines: registerOf(locals.db, id).map((line) => ({ ...line, why: describeRemoval(line.reasons) }))
		};
	});

const NOTE = v.object({ host: Text, owner: Text, purpose: Text, confirm: Text });
const short = (text: string) => text.trim().slice(0, 300);

export const actions = {
	note: formAction(NOTE, ({ host, owner, purpose, confirm }, { locals, params }: RequestEvent) => {
		const { id } = existingClient(locals.db, idFrom(params.id, 'client'));
		const [note, isConfirmed] = [
			{ host: short(host), owner: short(owner), purpose: short(purpose) },
			confirm === 'yes'
		];
		saveHostNote(locals.db, id, { ...note, isConfirmed });
	})
};
