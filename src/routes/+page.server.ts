import { deskView } from '$lib/server/rooms/trials/listView';
import { brokenPages, deskNotices, openReadings } from '$lib/server/rooms/watch/view';

export const load = async ({ locals, parent }) => {
	const { clientId } = await parent();
	return {
		...deskView(locals.db, clientId),
		broken: brokenPages(locals.db, clientId),
		notices: deskNotices(locals.db, clientId),
		readings: openReadings(locals.db, clientId),
		damage: locals.damage()
	};
};
