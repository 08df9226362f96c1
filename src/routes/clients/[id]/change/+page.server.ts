import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { changeClient } from '$lib/server/rooms/clients/commands';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { ClientFields, clientFrom, typedClient } from '$lib/server/rooms/clients/form';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { NotPossible } from '$lib/server/base/refusal';
import { idFrom } from '$lib/server/http/api';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';

export const load = async ({ locals, params }) => {
	const client = pageOr404(() => existingClient(locals.db, idFrom(params.id, 'client')));
	return {
		where: `Clients › ${client.name} › Change`,
		name: client.name,
		form: await formOf(ClientFields, typedClient(client)),
		conditions: conditionNames(locals.db)
	};
};

export const actions = {
	default: formAction(ClientFields, (typed, { locals, params }: RequestEvent) => {
		const id = idFrom(params.id, 'client');
		const revision = typed.revision === '' ? null : Number(typed.revision);
		try {
			changeClient(locals.db, id, clientFrom(typed), revision);
		} catch (error) {
			// Whoever saves again has read that somebody else did.
			if (error instanceof NotPossible && error.path === 'revision')
				typed.revision = String(existingClient(locals.db, id).revision);
			throw error;
		}
		redirect(303, `/clients/${id}`);
	})
};
