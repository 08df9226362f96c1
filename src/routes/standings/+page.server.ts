import { getDb } from '$lib/server/context';
import { standingList } from '$lib/server/standings/view';

export const load = async ({ parent }) => ({
	where: 'Standings',
	standings: standingList(getDb(), (await parent()).clientId)
});
