import { getDb } from '$lib/server/context';
import { restoreFrom } from '$lib/server/desk/binForm';
import { formAction } from '$lib/server/http/form';
import { componentUses, listComponents } from '$lib/server/setups/components';
import { findBinned } from '$lib/server/storage/bin';

export const load = ({ url }) => {
	const uses = componentUses(getDb());
	return {
		where: 'Workshop › Components',
		/** What was deleted just now, unless it is back. */
		binned: findBinned(getDb(), Number(url.searchParams.get('deleted'))),
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

export const actions = { restore: formAction((form: FormData) => restoreFrom(getDb(), form)) };
