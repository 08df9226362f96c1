import { fail, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { ClientInput, newClient } from '$core/clients/client';
import { createClient } from '$lib/server/rooms/clients/commands';
import { clientFrom, typedClient } from '$lib/server/rooms/clients/form';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { issuesOf } from '$lib/server/http/api';
import { formAction, withTyped } from '$lib/server/http/form';

export const load = ({ locals }) => ({
	where: 'Clients › New client',
	client: { ...newClient('?'), name: '' },
	conditions: conditionNames(locals.db)
});

export const actions = {
	default: formAction((form, { locals, cookies }: RequestEvent) => {
		const typed = typedClient(form);
		const read = clientFrom(typed);
		if ('issues' in read) return fail(422, { typed, issues: read.issues });
		const result = v.safeParse(ClientInput, read.value);
		if (!result.success) return fail(422, { typed, issues: issuesOf(result.issues) });
		const id = withTyped(typed, () => createClient(locals.db, result.output));
		if (typeof id !== 'number') return id;
		cookies.set('client', String(id), { path: '/', maxAge: 31_536_000, sameSite: 'lax', secure: false });
		redirect(303, `/clients/${id}`);
	})
};
