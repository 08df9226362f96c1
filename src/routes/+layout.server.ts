import { getDb } from '$lib/server/context';
import { clientNames, currencyOfClient } from '$lib/server/clients/clients';
import { labNow } from '$lib/server/labs/view';

export const load = ({ cookies, depends }) => {
	depends('zafra:client');
	const clients = clientNames(getDb());
	const chosen = Number(cookies.get('client'));
	const clientId = clients.some((client) => client.id === chosen) ? chosen : null;
	return {
		clients,
		clientId,
		/** Of what is typed of prices. */
		currency: currencyOfClient(getDb(), clientId),
		lab: labNow(getDb())
	};
};
