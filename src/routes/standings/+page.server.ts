import { standingList } from '$lib/server/rooms/standings/view';

export const load = async ({ locals, parent }) => ({
	where: 'Standings',
	standings: standingList(locals.db, (await parent()).clientId)
});
