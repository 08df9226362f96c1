import type { RequestEvent } from './$types';
import { describeRemoval } from '$core/wording/gathering';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { idFrom } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { queueHosts, registerOf, saveHostNote, unreadLoads } from '$lib/server/rooms/loads/register';

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

export const actions = {
	note: formAction((form, { locals, params }: RequestEvent) => {
		const text = (name: string) => textOf(form, name).trim().slice(0, 300);
		const { id } = existingClient(locals.db, idFrom(params.id, 'client'));
		const isConfirmed = form.get('confirm') === 'yes';
		saveHostNote(locals.db, id, { host: text('host'), owner: text('owner'), purpose: text('purpose'), isConfirmed });
	})
};
