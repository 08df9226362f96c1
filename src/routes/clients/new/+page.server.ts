import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { newClient } from '$core/clients/client';
import { ClientFields, clientFrom, typedClient } from '$lib/server/rooms/clients/form';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { formAction, formOf } from '$lib/server/http/form';
import { createClient } from '$lib/server/rooms/clients/commands';

export const load = async ({ locals }) => ({
	where: 'Clients › New client',
	form: await formOf(ClientFields, { ...typedClient(newClient('?')), name: '' }),
	conditions: conditionNames(locals.db)
});

export const actions = {
	default: formAction(ClientFields, (typed, { locals, cookies }: RequestEvent) => {
		const id = createClient(locals.db, clientFrom(typed));
		cookies.set('client', String(id), { path: '/', maxAge: 31_536_000, sameSite: 'lax', secure: false });
		redirect(303, `/clients/${id}`);
	})
};
