import { clientListView } from '$lib/server/rooms/clients/view';

export const load = ({ locals }) => ({ where: 'Clients', list: clientListView(locals.db) });
