import { getDamage, getDb } from '$lib/server/context';
import { deskView } from '$lib/server/trials/listView';
import { deskNotices, openReadings } from '$lib/server/watch/view';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	return {
		...deskView(getDb(), clientId),
		notices: deskNotices(getDb(), clientId),
		readings: openReadings(getDb(), clientId),
		damage: getDamage()
	};
};
