import { fail, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { changeClient } from '$lib/server/rooms/clients/commands';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { clientFrom, typedClient } from '$lib/server/rooms/clients/form';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const client = existingClient(locals.db, idFrom(params.id, 'client'));
		return { where: `Clients › ${client.name} › Change`, client, conditions: conditionNames(locals.db) };
	});

export const actions = {
	default: formAction((form, { locals, params }: RequestEvent) => {
		const id = idFrom(params.id, 'client');
		const typed = typedClient(form);
		const read = clientFrom(typed);
		if ('issues' in read) return fail(422, { typed, issues: read.issues });
		const result = v.safeParse(ClientInput, read.value);
		if (!result.success) return fail(422, { typed, issues: issuesOf(result.issues) });
		const revision = typed.revision === '' ? null : Number(typed.revision);
		const refused = withTyped(typed, () => changeClient(locals.db, id, result.output, revision));
		// Whoever saves again has read that somebody else did.
		if (refused)
			return fail(refused.status, {
				...refused.data,
				typed: { ...typed, revision: String(existingClient(locals.db, id).revision) }
			});
		redirect(303, `/clients/${id}`);
	})
};
