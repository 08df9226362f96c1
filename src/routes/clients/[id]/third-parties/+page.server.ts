import type { RequestEvent } from './$types';
import { describeRemoval } from '$core/wording/gathering';
import { existingClient } from '$lib/server/clients/clients';
import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { queueHosts, registerOf, saveHostNote, unreadLoads } from '$lib/server/setups/register';

export const load = ({ params }) =>
	pageOr404(() => {
		const { id, name } = existingClient(getDb(), idFrom(params.id, 'client'));
		const unread = unreadLoads(getDb(), id);
		if (unread) queueHosts(getDb(), id);
		return {
			where: `Clients › ${name} › Third parties`,
			client: { id, name },
			unread,
			lines: registerOf(getDb(), id).map((line) => ({ ...line, why: describeRemoval(line.reasons) }))
		};
	});

export const actions = {
	note: formAction((form, { params }: RequestEvent) => {
		const text = (name: string) => textOf(form, name).trim().slice(0, 300);
		const { id } = existingClient(getDb(), idFrom(params.id, 'client'));
		const isConfirmed = form.get('confirm') === 'yes';
		saveHostNote(getDb(), id, { host: text('host'), owner: text('owner'), purpose: text('purpose'), isConfirmed });
	})
};
