import { getDb } from '$lib/server/context';
import { deskView } from '$lib/server/trials/listView';

export const load = async ({ parent }) => deskView(getDb(), (await parent()).clientId);
