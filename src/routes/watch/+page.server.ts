import { PERIODS } from '$core/watch/since';
import { getDb } from '$lib/server/context';
import { watchList } from '$lib/server/watch/view';
import { listWatches } from '$lib/server/watch/watches';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const asked = url.searchParams.get('since');
	const period = PERIODS.find((candidate) => candidate === asked) ?? 'month';
	return {
		where: 'Watch',
		period,
		rows: watchList(getDb(), clientId, period),
		watches: listWatches(getDb(), 'watch', clientId).map(({ id, name, clientName, state, nextAt }) => ({
			id,
			name,
			clientName,
			state,
			nextAt
		})),
		filter: {
			words: url.searchParams.get('words') ?? '',
			state: url.searchParams.get('is') ?? '',
			band: url.searchParams.get('band') ?? '',
			type: url.searchParams.get('type') ?? ''
		}
	};
};
