import { labNow } from '$lib/server/desk/labNow';
import { clientNames, currencyOfClient } from '$lib/server/rooms/clients/view';

export const load = ({ locals, cookies, depends }) => {
	depends('zafra:client');
	const clients = clientNames(locals.db);
	const chosen = Number(cookies.get('client'));
	const clientId = clients.some((client) => client.id === chosen) ? chosen : null;
	return {
		clients,
		clientId,
		/** Of what is typed of prices. */
		currency: currencyOfClient(locals.db, clientId),
		lab: labNow(locals.db)
	};
};
