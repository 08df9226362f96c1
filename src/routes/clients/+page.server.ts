import { clientListView } from '$lib/server/clients/view';
import { getDb } from '$lib/server/context';

export const load = () => ({ where: 'Clients', list: clientListView(getDb()) });
