import { getDb } from '$lib/server/context';
import { componentUses, listComponents } from '$lib/server/setups/components';

export const load = () => {
	const uses = componentUses(getDb());
	return {
		where: 'Workshop › Components',
		components: listComponents(getDb()).map(({ id, kind, name, prices, jobs, recognition }) => ({
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
