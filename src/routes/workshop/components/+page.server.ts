import { restoreAction } from '$lib/server/desk/binForm';
import { findBinned } from '$lib/server/base/storage/bin';
import { componentUses, listComponents } from '$lib/server/rooms/setups/view';

export const load = ({ locals, url }) => {
	const uses = componentUses(locals.db);
	return {
		where: 'Workshop › Components',
		/** What was deleted just now, unless it is back. */
		binned: findBinned(locals.db, Number(url.searchParams.get('deleted'))),
		components: listComponents(locals.db).map(({ id, kind, name, prices, jobs, recognition }) => ({
			id,
			kind,
			name,
			tiers: prices.map(({ tier }) => tier),
			jobs,
			isKnown: Object.values(recognition).some((list) => list.length > 0),
			sites: uses.get(id) ?? []
		}))
	};
};

export const actions = { restore: restoreAction };
