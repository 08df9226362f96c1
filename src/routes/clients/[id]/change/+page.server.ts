import { fail, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { changeClient } from '$lib/server/clients/commands';
import { existingClient } from '$lib/server/clients/clients';
import { clientFrom, typedClient } from '$lib/server/clients/form';
import { conditionNames } from '$lib/server/conditions/saved';
import { getDb } from '$lib/server/context';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';

export const load = ({ params }) =>
	pageOr404(() => {
		const client = existingClient(getDb(), idFrom(params.id, 'client'));
		return { where: `Clients › ${client.name} › Change`, client, conditions: conditionNames(getDb()) };
	});

export const actions = {
	default: formAction((form, { params }: RequestEvent) => {
		const id = idFrom(params.id, 'client');
		const typed = typedClient(form);
		const read = clientFrom(typed);
		if ('issues' in read) return fail(422, { typed, issues: read.issues });
		const result = v.safeParse(ClientInput, read.value);
		if (!result.success) return fail(422, { typed, issues: issuesOf(result.issues) });
		const revision = typed.revision === '' ? null : Number(typed.revision);
		const refused = withTyped(typed, () => changeClient(getDb(), id, result.output, revision));
		// Whoever saves again has read that somebody else did.
		if (refused)
			return fail(refused.status, {
				...refused.data,
				typed: { ...typed, revision: String(existingClient(getDb(), id).revision) }
			});
		redirect(303, `/clients/${id}`);
	})
};
