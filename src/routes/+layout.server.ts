import { getDb } from '$lib/server/context';
import { clientNames } from '$lib/server/clients/clients';
import { labNow } from '$lib/server/labs/view';

export const load = ({ cookies, depends }) => {
	depends('zafra:client');
	const clients = clientNames(getDb());
	const chosen = Number(cookies.get('client'));
	return {
		clients,
		clientId: clients.some((client) => client.id === chosen) ? chosen : null,
		lab: labNow(getDb())
	};
};
