import type { RequestEvent } from './$types';
import { clientNames, existingClient } from '$lib/server/clients/clients';
import { getDb, getSettings } from '$lib/server/context';
import { requestField } from '$lib/server/field/gathering';
import { fieldView } from '$lib/server/field/view';
import { formAction, textOf } from '$lib/server/http/form';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const names = clientNames(getDb());
	const asked = Number(url.searchParams.get('client')) || clientId;
	const client = names.find(({ id }) => id === asked) ?? names[0] ?? null;
	return {
		where: client ? `Field › ${client.name}` : 'Field',
		names,
		client,
		hasPanel: getSettings().panel.url !== '',
		filter: { assessment: url.searchParams.get('is') ?? '', device: url.searchParams.get('device') ?? '' },
		view: client && fieldView(getDb(), client)
	};
};

export const actions = {
	gather: formAction((form: FormData, _event: RequestEvent) => {
		requestField(getDb(), existingClient(getDb(), Number(textOf(form, 'client'))).id);
	})
};
