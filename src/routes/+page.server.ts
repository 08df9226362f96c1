import { getDamage, getDb } from '$lib/server/context';
import { deskView } from '$lib/server/trials/listView';
import { brokenPages, deskNotices, openReadings } from '$lib/server/watch/view';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	return {
		...deskView(getDb(), clientId),
		broken: brokenPages(getDb(), clientId),
		notices: deskNotices(getDb(), clientId),
		readings: openReadings(getDb(), clientId),
		damage: getDamage()
	};
};
